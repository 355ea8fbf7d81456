<script setup lang="ts">
import type { Schemas } from '../api/client'

/** Whether answers are asked for, whether one may be sent instead, whether people sign up. */
const options = defineModel<Schemas['Options']>({ required: true })
const ASKED = [
  { title: 'are asked for', value: 'asked' },
  { title: 'are not asked for', value: 'not' },
  { title: 'people sign up', value: 'sign-up' },
]
const way = () => (options.value.signUp ? 'sign-up' : options.value.answersAsked ? 'asked' : 'not')
function choose(value: string) {
  options.value = {
    ...options.value,
    signUp: value === 'sign-up',
    answersAsked: value !== 'not',
    signUpLimit: value === 'sign-up' ? options.value.signUpLimit : null,
  }
}
</script>

<template>
  <div class="options">
    <v-select :model-value="way()" :items="ASKED" label="Answers" @update:model-value="choose" />
    <v-text-field
      v-if="options.signUp"
      :model-value="options.signUpLimit"
      type="number"
      min="1"
      label="Room for"
      hint="empty: for all"
      persistent-hint
      @update:model-value="value => (options.signUpLimit = Number(value) || null)"
    />
    <v-checkbox v-model="options.passOn" label="Who cannot may send somebody else" />
  </div>
</template>

<style scoped>
.options {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 0 12px;
  align-items: start;
}
</style>
