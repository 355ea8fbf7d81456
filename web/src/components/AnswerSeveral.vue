<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { ANSWERS, GIVEN } from '../answers'

/** One answer to several meetings: those that are shown, or all to come, and the later ones with them. */
type Word = Schemas['AnswerWord']
const {
  shown,
  total,
  goesOn,
  suggested = undefined,
} = defineProps<{
  shown: string[]
  total: number
  goesOn: boolean
  suggested?: Word
  busy: boolean
}>()
const emit = defineEmits<{ answer: [word: Word, ids: string[] | null, note: string | null] }>()
const which = ref<'shown' | 'all'>('all')
/** It stays until the answer is there. */
const note = defineModel<string>('note', { required: true })
const allWords = computed(
  () => `All ${total} that are still open${goesOn ? ', and later ones: what I usually do' : ''}`,
)
const choice = computed(() => shown.length > 1 && (goesOn || shown.length < total))
function send(word: Word) {
  emit('answer', word, choice.value && which.value === 'shown' ? shown : null, note.value || null)
}
</script>

<template>
  <section class="stack" aria-labelledby="several">
    <h2 id="several">{{ choice ? 'Answer several at once' : allWords }}</h2>
    <fieldset v-if="choice" class="which">
      <legend class="small soft">The answer is for</legend>
      <label><input v-model="which" type="radio" value="all" /> {{ allWords }}</label>
      <label><input v-model="which" type="radio" value="shown" /> The {{ shown.length }} of them below</label>
    </fieldset>
    <div
      class="choices"
      role="group"
      :aria-label="choice ? 'Your answer for several' : 'Your answer for all that are still open'"
    >
      <button
        v-for="word in GIVEN"
        :key="word"
        type="button"
        :disabled="busy"
        :class="{ suggested: suggested === word }"
        @click="send(word)"
      >
        {{ ANSWERS[word].i }}
      </button>
    </div>
    <v-text-field v-model="note" label="A note with it (optional)" hide-details />
  </section>
</template>

<style scoped>
.which {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
</style>
