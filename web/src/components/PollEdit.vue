<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas } from '../api/client'
import { CALLS, REPEATS, repeatOf, ruleOfAsk, SHOWS, TELLS } from '../asking'
import { instantOf, wallOf } from '../time'
import FormDialog from './FormDialog.vue'
import MomentField from './MomentField.vue'
import { useFaults } from '../composables/useFaults'

/** Title, words, deadline and settings of a poll. */
const { poll, error, busy } = defineProps<{ poll: Schemas['TimePoll']; error: Error | null; busy: boolean }>()
const emit = defineEmits<{ save: [Schemas['ChangedTimePoll'] & { version: number }] }>()
const open = defineModel<boolean>({ required: true })
const filled = () => ({
  title: poll.title,
  words: poll.words ?? '',
  closes: wallOf(poll.closesAt, poll.timeZone),
  shows: poll.shows,
  tells: poll.tells,
  byItself: poll.byItself,
  holdsTimes: poll.holdsTimes,
  outcome: poll.outcome,
  callKind: poll.callKind,
  ...repeatOf(poll.rule),
})
/** What it becomes can be changed until it is settled. */
const outcomes = computed(() => [
  { value: 'meeting', title: 'A single meeting' },
  { value: 'series', title: 'A series' },
  ...(poll.meetingId ? [{ value: 'move', title: `The new time of ${poll.aim ?? 'the meeting'}` }] : []),
  ...(poll.seriesId ? [{ value: 'within', title: `Another date of ${poll.aim ?? 'the series'}` }] : []),
])
const repeats = Object.entries(REPEATS).map(([value, one]) => ({ value, title: one.title }))
const made = computed(() => ['meeting', 'series'].includes(form.value.outcome))
const form = ref(filled())
watch(open, shown => {
  if (shown) form.value = filled()
})
const { at, rest: unplaced } = useFaults(() => error, /^\/(title|closesAt|rule)$/)
function save() {
  const { closes, words, repeat, count, ...rest } = form.value
  const { version, seriesId, meetingId, placeId, place } = poll
  emit('save', {
    ...rest,
    words: words || null,
    version,
    seriesId,
    meetingId,
    rule: ruleOfAsk({ outcome: rest.outcome, repeat, count }),
    placeId,
    place,
    closesAt: closes === wallOf(poll.closesAt, poll.timeZone) ? poll.closesAt : instantOf(closes, poll.timeZone),
  })
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`poll-${poll.id}`"
    title="Deadline and settings"
    verb="Save"
    :error="unplaced"
    :busy="busy"
    @submit="save"
  >
    <v-text-field v-model="form.title" label="Title" :error-messages="at('/title')" />
    <v-textarea v-model="form.words" label="A few words with it (optional)" rows="1" />
    <MomentField
      v-model="form.closes"
      label="Answers until"
      :time-zone="poll.timeZone"
      :error-messages="at('/closesAt')"
    />
    <v-select v-model="form.outcome" :items="outcomes" label="It becomes" />
    <template v-if="form.outcome === 'series'">
      <v-select v-model="form.repeat" :items="repeats" label="Repeats" :error-messages="at('/rule')" />
      <v-text-field v-model.number="form.count" type="number" min="1" max="400" label="Meetings" hint="empty: no end" />
    </template>
    <v-select v-if="made" v-model="form.callKind" :items="CALLS" label="Call" />
    <v-select v-model="form.shows" :items="SHOWS" label="Others’ answers" />
    <v-select v-model="form.tells" :items="TELLS" label="You are told" />
    <v-checkbox
      v-if="poll.people.length === 1"
      v-model="form.byItself"
      label="Settle by itself on the first time that suits"
    />
    <v-checkbox v-model="form.holdsTimes" label="Hold all these times for me meanwhile" />
  </FormDialog>
</template>
