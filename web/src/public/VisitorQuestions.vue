<script setup lang="ts">
import type { Schemas } from './api'

/** What the host asks whoever books. */
const { questions, fault } = defineProps<{
  questions: Schemas['VisitorQuestion'][]
  fault: (index: number) => string | undefined
}>()
const answers = defineModel<(string | boolean)[]>({ required: true })
function put(index: number, value: string | boolean) {
  const next = [...answers.value]
  next[index] = value
  answers.value = next
}
const text = (event: Event) => (event.target as HTMLInputElement).value
const words = (one: Schemas['VisitorQuestion']) => `${one.text}${one.required ? '' : ' (optional)'}`
</script>

<template>
  <template v-for="(one, i) in questions" :key="one.text">
    <label v-if="one.kind === 'tick'" class="tick"
      ><input
        type="checkbox"
        :checked="answers[i] === true"
        :aria-invalid="!!fault(i)"
        @change="put(i, ($event.target as HTMLInputElement).checked)"
      /><span
        >{{ words(one) }}<em v-if="fault(i)" class="alarm small" role="alert"> {{ fault(i) }}</em></span
      ></label
    >
    <label v-else class="field"
      ><span>{{ words(one) }}</span
      ><textarea
        v-if="one.kind === 'long'"
        rows="3"
        maxlength="2000"
        :value="String(answers[i] ?? '')"
        :aria-invalid="!!fault(i)"
        @input="put(i, text($event))"
      /><select
        v-else-if="one.kind === 'choice'"
        :value="String(answers[i] ?? '')"
        :aria-invalid="!!fault(i)"
        @change="put(i, text($event))"
      >
        <option value="">Choose</option>
        <option v-for="choice in one.choices" :key="choice" :value="choice">{{ choice }}</option></select
      ><input
        v-else
        maxlength="200"
        :value="String(answers[i] ?? '')"
        :aria-invalid="!!fault(i)"
        @input="put(i, text($event))"
      /><em v-if="fault(i)" role="alert">{{ fault(i) }}</em></label
    >
  </template>
</template>
