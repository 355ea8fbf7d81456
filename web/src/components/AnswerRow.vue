<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { now } from '../present'
import { clock, mediumDay, wallNow } from '../time'
import CallWords from './CallWords.vue'
import { ANSWERS, GIVEN } from '../answers'

/** One meeting as somebody invited sees it: when it is, what they have answered, and three ways to answer it. */
type Word = Schemas['AnswerWord']
const {
  meeting,
  standing,
  asked,
  suggested = undefined,
  offered = null,
  zone,
} = defineProps<{
  meeting: Schemas['LinkMeeting']
  standing: string
  asked: boolean
  informed?: boolean
  /** In which times are shown. */
  zone: string
  /** The other time that was offered, on the wall that is shown. */
  offered?: string | null
  suggested?: Word
  busy?: boolean
  papers: string
}>()
const emit = defineEmits<{ answer: [answer: Word, note: string | null] }>()

// Where people sign up there is no maybe.
const words = computed<[Word, string][]>(() =>
  meeting.signUp
    ? [
        ['accepted', 'I sign up'],
        ['declined', ANSWERS.declined.i],
      ]
    : GIVEN.map(word => [word, ANSWERS[word].i]),
)
const answerable = computed(() => asked && meeting.state === 'planned' && meeting.answersAsked)
const day = computed(() => mediumDay(meeting.localStart))
/** On the wall that is shown. */
const opens = computed(() => {
  const at = meeting.callOpens ? new Date(meeting.callOpens) : null
  return at && at.getTime() > now() ? clock(wallNow(zone, at)) : ''
})
const writing = ref(false)
const note = ref('')

function write() {
  note.value = meeting.note ?? ''
  writing.value = true
}
function keepWord() {
  emit('answer', meeting.answer, note.value || null)
  writing.value = false
}
</script>

<template>
  <li class="one">
    <p class="row spread">
      <span :class="{ off: meeting.state === 'called_off' }" class="strong"
        >{{ day }}, {{ clock(meeting.localStart) }}–{{ clock(meeting.localEnd) }}</span
      >
      <span class="small" :class="meeting.state === 'called_off' ? 'alarm' : 'soft'">{{ standing }}</span>
    </p>
    <div v-if="answerable" class="choices" role="group" :aria-label="`Your answer for ${day}`">
      <button
        v-for="[word, label] in words"
        :key="word"
        type="button"
        :disabled="busy"
        :class="{ on: meeting.answer === word, suggested: suggested === word && meeting.answer === 'none' }"
        :aria-pressed="meeting.answer === word"
        :aria-label="`${label}, ${day}`"
        @click="$emit('answer', word, meeting.note)"
      >
        {{ label }}
      </button>
    </div>
    <p v-if="meeting.callOpens && meeting.call && meeting.state !== 'called_off'" class="small">
      <CallWords :call="meeting.call" words="Your way into the call" /><template v-if="opens"
        >, open from {{ opens }}</template
      >
    </p>
    <p v-if="meeting.location || (meeting.call && !meeting.callOpens)" class="small">
      Held elsewhere: {{ meeting.location
      }}<template v-if="meeting.call && !meeting.callOpens"
        >{{ meeting.location ? ', ' : '' }}<CallWords :call="meeting.call" whole
      /></template>
    </p>
    <p v-if="informed && meeting.state === 'planned'">
      <button
        type="button"
        class="quiet small"
        :aria-label="`${meeting.answer === 'declined' ? 'I may be there after all' : 'I will not be there'}, ${day}`"
        :disabled="busy"
        @click="$emit('answer', meeting.answer === 'declined' ? 'none' : 'declined', null)"
      >
        {{ meeting.answer === 'declined' ? 'I may be there after all' : 'I will not be there' }}
      </button>
    </p>
    <p v-if="offered" class="small">You have offered {{ mediumDay(offered) }}, {{ clock(offered) }} instead.</p>
    <p v-if="meeting.substituteDeclined" class="small alarm">
      {{ meeting.substitute }} cannot come either: come yourself, or ask somebody else below.
    </p>
    <p v-if="meeting.note && !writing" class="small">“{{ meeting.note }}”</p>
    <form v-if="writing" class="word" novalidate @submit.prevent="keepWord">
      <v-text-field v-model="note" label="A note with it" autofocus hide-details />
      <v-btn type="submit" variant="outlined">Save</v-btn>
    </form>
    <p v-else-if="answerable && meeting.answer !== 'none'">
      <button
        type="button"
        class="quiet small"
        :aria-label="`${meeting.note ? 'Edit the note' : 'Add a note'}, ${day}`"
        @click="write()"
      >
        {{ meeting.note ? 'Edit the note' : 'Add a note' }}
      </button>
    </p>
    <p v-if="meeting.papers.length" class="small papers">
      To read:
      <a v-for="paper in meeting.papers" :key="paper.id" :href="`${papers}/${paper.id}`" download>{{ paper.name }}</a>
    </p>
  </li>
</template>

<style scoped>
.one {
  display: grid;
  gap: 8px;
  padding: 12px 0;
}
.one > p {
  margin: 0;
}
.papers {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.off {
  text-decoration: line-through;
}
.word {
  display: flex;
  gap: 10px;
  align-items: center;
}
.one .quiet {
  margin-left: -4px;
}
</style>
