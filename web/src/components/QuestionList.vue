<script setup lang="ts">
import type { Schemas } from '../api/client'
import { QUESTION_KINDS } from '../openHours'

/** What visitors are asked, in order. */
const { fault } = defineProps<{ fault: (index: number) => string | undefined }>()
const questions = defineModel<Schemas['VisitorQuestion'][]>({ required: true })
const add = () => questions.value.push({ kind: 'short', text: '', required: false, choices: [] })
const choices = (one: Schemas['VisitorQuestion']) => (one.choices ?? []).join('\n')
function setChoices(one: Schemas['VisitorQuestion'], text: string) {
  one.choices = text.split('\n').filter(line => line.trim() !== '')
}
</script>

<template>
  <div class="stack">
    <div v-for="(one, i) in questions" :key="i" class="question" role="group" :aria-label="`Question ${i + 1}`">
      <v-text-field v-model="one.text" :label="`Question ${i + 1}`" maxlength="300" :error-messages="fault(i)" />
      <v-select v-model="one.kind" :items="QUESTION_KINDS" label="Answered by" />
      <v-checkbox v-model="one.required" label="Must be answered" />
      <button type="button" class="quiet" :aria-label="`Remove question ${i + 1}`" @click="questions.splice(i, 1)">
        Remove
      </button>
      <v-textarea
        v-if="one.kind === 'choice'"
        :model-value="choices(one)"
        label="Choices, one a line"
        rows="2"
        class="choices"
        @change="setChoices(one, ($event.target as HTMLTextAreaElement).value)"
      />
    </div>
    <button type="button" class="quiet" @click="add">Add a question</button>
  </div>
</template>

<style scoped>
.question {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) auto auto;
  gap: 8px 12px;
  align-items: center;
}
.choices {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .question {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
