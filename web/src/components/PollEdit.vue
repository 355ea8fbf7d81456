<script setup lang="ts">
import { ref, watch } from 'vue'
import { type Schemas } from '../api/client'
import { SHOWS, TELLS } from '../asking'
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
})
const form = ref(filled())
watch(open, shown => {
  if (shown) form.value = filled()
})
const { at, rest: unplaced } = useFaults(() => error, /^\/(title|closesAt)$/)
function save() {
  const { closes, words, ...rest } = form.value
  const { version, outcome, seriesId, meetingId, rule, placeId, place, callKind } = poll
  emit('save', {
    ...rest,
    words: words || null,
    version,
    outcome,
    seriesId,
    meetingId,
    rule,
    placeId,
    place,
    callKind,
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
