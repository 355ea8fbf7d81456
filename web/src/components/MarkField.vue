<script setup lang="ts">
import { MARKS, markName, type MarkName } from '../marks'
import SeriesMark from './SeriesMark.vue'

/** Choosing the mark of a series, or none. */
const mark = defineModel<MarkName | null>({ required: true })
const NAMES = Object.keys(MARKS) as MarkName[]
</script>

<template>
  <fieldset class="marks">
    <legend class="small soft">Mark</legend>
    <label :class="{ on: mark === null }"><input v-model="mark" type="radio" name="mark" :value="null" />None</label>
    <label v-for="name in NAMES" :key="name" :class="{ on: mark === name }"
      ><input v-model="mark" type="radio" name="mark" :value="name" /><SeriesMark :mark="name" />{{
        markName(name)
      }}</label
    >
  </fieldset>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  border: 0;
  padding: 0;
  margin-inline: 0;
}
label {
  padding: 2px 6px;
  border-radius: 6px;
}
.on {
  background: var(--pine-pale);
}
input {
  margin-right: 4px;
}
</style>
