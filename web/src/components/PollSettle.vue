<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../api/client'
import { clock, count, list, longDay, shortDay } from '../time'
import { whoGets } from '../untold'
import { useSession } from '../composables/useSession'
import BookedThen from './BookedThen.vue'
import FormDialog from './FormDialog.vue'

/** One of the times is made what was wanted: who is told what stands there before anybody is. */
const { poll, time, error, busy } = defineProps<{
  poll: Schemas['TimePoll']
  time: Schemas['PolledTime']
  error: Error | null
  busy: boolean
}>()
const emit = defineEmits<{ settle: [Schemas['PollSettlement']] }>()
const open = defineModel<boolean>({ required: true })
const form = ref({ leaveOut: [] as string[], tell: true, note: '' })
let key = newKey()
watch(open, shown => {
  if (!shown) return
  key = newKey()
  form.value = { leaveOut: [], tell: true, note: '' }
})
const { person: me } = useSession()
/** Those whose calendars are known here, and whoever settles it. */
const known = computed(() => [
  { personId: me.value!.id, role: 'required' as const },
  ...poll.people
    .filter(one => !one.guest && one.id !== me.value?.id && !form.value.leaveOut.includes(one.id))
    .map(one => ({ personId: one.id, role: one.role })),
])
const OUTCOMES = { meeting: 'A single meeting', series: 'A series', move: 'The new time of', within: 'Another date of' }
const invited = computed(() => poll.people.filter(one => !form.value.leaveOut.includes(one.id)))
const left = computed(() => poll.people.filter(one => form.value.leaveOut.includes(one.id)))
const accepted = computed(() => invited.value.filter(one => one.accepts && time.suits.includes(one.id)))
const words = computed(() => {
  const what = `${OUTCOMES[poll.outcome]}${poll.aim ? ` ${poll.aim}` : ''}`
  const where = poll.location ? ` in ${poll.location}` : ''
  const online = poll.callKind === 'none' ? '' : ' with a call'
  return `${what}${where}${online}, ${longDay(time.localStart)}, ${clock(time.localStart)} ${poll.zoneCity} time.`
})
const others = computed(() => poll.candidates.length - 1)
function settle() {
  const { leaveOut, tell, note } = form.value
  emit('settle', { key, candidateId: time.id, leaveOut, tell, note: note || null })
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :title="`Settle on ${shortDay(time.localStart)}, ${clock(time.localStart)}`"
    :verb="form.tell ? 'Make it and tell people' : 'Make it'"
    :error="error"
    :busy="busy"
    @submit="settle"
  >
    <p>{{ words }}</p>
    <BookedThen
      :people="known"
      :at="time.startsAt"
      :length-min="poll.lengthMin"
      :time-zone="poll.timeZone"
      :enabled="open"
      :except-meeting-id="poll.meetingId"
    />
    <p v-if="time.alsoAsked.length" class="small carried">Also put to people in {{ list(time.alsoAsked) }}.</p>
    <fieldset class="who">
      <legend class="small soft">Who is invited</legend>
      <label v-for="one in poll.people" :key="one.id"
        ><input
          type="checkbox"
          :checked="!form.leaveOut.includes(one.id)"
          @change="
            form.leaveOut = form.leaveOut.includes(one.id)
              ? form.leaveOut.filter(id => id !== one.id)
              : [...form.leaveOut, one.id]
          "
        />
        {{ one.name }}
        <span class="soft small">{{
          time.suits.includes(one.id)
            ? 'suits'
            : time.possible.includes(one.id)
              ? 'possible'
              : time.cannot.includes(one.id)
                ? 'cannot'
                : 'silent'
        }}</span></label
      >
    </fieldset>
    <v-text-field v-model="form.note" label="A note with the invitation (optional)" maxlength="500" />
    <v-checkbox v-model="form.tell" label="Tell people now" />
    <ul class="small soft">
      <li>
        {{
          form.tell
            ? `By mail: ${whoGets(invited)}.`
            : 'Nobody is told; you send the invitation afterwards, or open this again.'
        }}
      </li>
      <li v-if="accepted.length">
        {{ list(accepted.map(one => one.name)) }} {{ accepted.length === 1 ? 'has' : 'have' }} accepted by answering.
      </li>
      <li v-if="form.tell && left.length">{{ list(left.map(one => one.name)) }} get a word that it is settled.</li>
      <li v-if="others">{{ count(others, 'other time') }} {{ others === 1 ? 'is' : 'are' }} let go.</li>
    </ul>
  </FormDialog>
</template>

<style scoped>
.who {
  display: grid;
  gap: 4px;
  border: 0;
  padding: 0;
  margin: 0;
}
</style>
