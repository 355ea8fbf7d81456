<script setup lang="ts">
import { useTemplateRef } from 'vue'
import type { Schemas } from './api'

/** One time with the three answers to it. Keys: s, p, c; then the next time has the focus. */
type Answer = Schemas['GivenAnswer']['answer']
const { time, label, from, to } = defineProps<{
  time: Schemas['PollPage']['candidates'][number]
  label: string
  from: string
  to: string
  disabled: boolean
}>()
const answer = defineModel<Answer>({ required: true })
const emit = defineEmits<{ next: [] }>()
const WORDS = [
  { answer: 'suits', word: 'Suits', key: 's' },
  { answer: 'possible', word: 'Possible', key: 'p' },
  { answer: 'cannot', word: 'Cannot', key: 'c' },
] as const
const CALENDAR = {
  free: 'your calendar: free',
  tentative: 'your calendar: something tentative',
  busy: 'your calendar: busy',
  outside: 'outside your working hours',
  unknown: '',
}
const box = useTemplateRef<HTMLFieldSetElement>('box')
function key(event: KeyboardEvent) {
  const found = WORDS.find(one => one.key === event.key.toLowerCase())
  if (!found || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  answer.value = found.answer
  emit('next')
}
const said = (word: Schemas['PollWord']) => time.who?.filter(one => one.answer === word).map(one => one.name) ?? []
const tally = () => {
  if (time.who?.length) {
    return WORDS.filter(one => said(one.answer).length)
      .map(one => `${one.word.toLowerCase()}: ${said(one.answer).join(', ')}`)
      .join(' · ')
  }
  if (!time.tally) return ''
  return WORDS.filter(one => time.tally![one.answer])
    .map(one => `${one.word.toLowerCase()} ${time.tally![one.answer]}`)
    .join(' · ')
}
const focus = () => box.value?.querySelector<HTMLInputElement>('input:checked, input')?.focus()
defineExpose({ focus })
</script>

<template>
  <fieldset ref="box" class="time" :disabled="disabled || time.past" @keydown="key">
    <legend>
      <span class="strong">{{ from }}–{{ to }}</span
      ><span class="visually-hidden">, {{ label }}</span
      ><span v-if="time.added" class="added"> added since you answered</span>
    </legend>
    <p v-if="time.past" class="small soft">past</p>
    <p
      v-else-if="time.calendar && CALENDAR[time.calendar]"
      class="small"
      :class="time.calendar === 'busy' ? 'alarm' : 'soft'"
    >
      {{ CALENDAR[time.calendar] }}
    </p>
    <div class="answers">
      <label v-for="one in WORDS" :key="one.answer" :class="[one.answer, { on: answer === one.answer }]">
        <input v-model="answer" type="radio" class="visually-hidden" :name="time.id" :value="one.answer" />
        {{ one.word }}
      </label>
    </div>
    <p v-if="tally()" class="small soft">Others: {{ tally() }}</p>
  </fieldset>
</template>

<style scoped>
.time {
  border: 0;
  border-top: 1px solid var(--line);
  margin: 0;
  padding: 10px 0 12px;
  display: grid;
  gap: 6px;
  min-width: 0;
}
legend {
  padding: 0;
  float: left;
  font-size: 1.0625rem;
}
legend + * {
  clear: both;
}
.added {
  font-size: 0.8125rem;
  color: var(--fresh);
  font-weight: 650;
}
.answers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.answers label {
  position: relative;
  text-align: center;
  padding: 11px 4px;
  border: 1px solid var(--edge);
  border-radius: 6px;
  font-weight: 600;
  cursor: pointer;
}
.answers label:focus-within {
  outline: 2px solid var(--pine);
  outline-offset: 2px;
}
.answers .suits.on {
  background: var(--pine);
  border-color: var(--pine);
  color: var(--on-pine);
}
.answers .possible.on {
  background: var(--gold);
  border-color: var(--gold);
  color: var(--on-gold);
}
.answers .cannot.on {
  border: 2px solid var(--alarm);
  background: repeating-linear-gradient(135deg, var(--hatch) 0 5px, transparent 5px 12px);
}
.answers .cannot.on {
  text-decoration: line-through;
}
fieldset:disabled .answers {
  opacity: 0.55;
}
</style>
