<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { now } from '../present'
import { count, longDay, mediumDay, wallOf } from '../time'
import { whoGets } from '../untold'
import FormDialog from './FormDialog.vue'

/** What can be done with the sheet as a whole: start, close, issue, call off, and the way back. */
const FORMS = [
  ['html', 'HTML'],
  ['md', 'Markdown'],
  ['txt', 'text'],
  ['ics', 'journal entry'],
] as const
const { sheet, busy } = defineProps<{ sheet: Sheet; busy: boolean }>()
const emit = defineEmits<{
  state: [Schemas['MeetingState'], reason?: string]
  correct: [reason: string]
  leaveAsIssued: []
}>()

// Held on another day, it is that day in all that is said of it; so it is asked once.
const asksWhen = ref(false)
function start() {
  const today = wallOf(new Date(now()).toISOString(), sheet.timeZone).slice(0, 10)
  if (today === sheet.localStart.slice(0, 10)) emit('state', 'in_session')
  else asksWhen.value = true
}
function holdNow() {
  asksWhen.value = false
  emit('state', 'in_session')
}

const issuing = ref(false)
const callingOff = ref(false)
const correcting = ref(false)
const why = ref({ reason: '' })
const triedToCorrect = ref(false)
const form = ref({ reason: '' })
const tried = ref(false)
const carries = computed(() => {
  const { actions, topics, to } = sheet.carries
  const what = [actions ? count(actions, 'action') : '', topics ? count(topics, 'topic') : '']
    .filter(Boolean)
    .join(' and ')
  if (!what) return 'nothing is left over'
  return `carries ${what} ${to ? `to ${mediumDay(to.localStart)}` : 'on, though no meeting is coming'}`
})

function issue() {
  issuing.value = false
  emit('state', 'issued')
}

function correct() {
  triedToCorrect.value = true
  if (!why.value.reason.trim()) return
  correcting.value = false
  emit('correct', why.value.reason)
  why.value = { reason: '' }
  triedToCorrect.value = false
}

function callOff() {
  tried.value = true
  if (!form.value.reason.trim()) return
  callingOff.value = false
  emit('state', 'called_off', form.value.reason)
}
</script>

<template>
  <p v-if="sheet.begunAt" class="files small no-print">
    As a file: <a :href="`/api/meetings/${sheet.id}/minutes.pdf`" download>PDF</a>
    <template v-for="[ending, name] in FORMS" :key="ending">
      · <a :href="`/api/meetings/${sheet.id}/minutes.${ending}`" download>{{ name }}</a>
    </template>
  </p>
  <div v-if="sheet.may.hold && !('keptAt' in sheet)" class="deeds" data-next>
    <template v-if="sheet.state === 'planned'">
      <v-btn block :loading="busy" @click="start">Start the meeting</v-btn>
      <button type="button" class="quiet small" @click="callingOff = true">Call it off…</button>
    </template>
    <template v-if="sheet.state === 'in_session'">
      <v-btn block :loading="busy" @click="emit('state', 'closed')">Close the meeting</v-btn>
      <p class="soft small">{{ carries }}</p>
      <button type="button" class="quiet small" @click="emit('state', 'planned')">Not started yet</button>
    </template>
    <template v-if="sheet.state === 'closed'">
      <v-btn block :loading="busy" @click="issuing = true">{{
        sheet.correcting ? 'Issue the correction' : 'Issue the minutes'
      }}</v-btn>
      <template v-if="sheet.correcting">
        <p class="soft small">Being corrected: {{ sheet.correcting }}</p>
        <button type="button" class="quiet small" @click="emit('leaveAsIssued')">Leave them as issued</button>
      </template>
      <template v-else>
        <p class="soft small">{{ carries }}</p>
        <button type="button" class="quiet small" @click="emit('state', 'in_session')">Open it again</button>
      </template>
    </template>
    <button v-if="sheet.state === 'issued'" type="button" class="quiet small" @click="correcting = true">
      Correct the minutes…
    </button>
    <button v-if="sheet.state === 'called_off'" type="button" class="quiet" @click="emit('state', 'planned')">
      Bring it back
    </button>
    <FormDialog v-model="asksWhen" title="Start the meeting" verb="Hold it now" @submit="holdNow">
      <p>It is planned for {{ longDay(sheet.localStart) }}. Hold it now?</p>
    </FormDialog>
    <FormDialog
      v-model="issuing"
      :title="sheet.correcting ? 'Issue the correction' : 'Issue the minutes'"
      :verb="`Issue and send to ${count(sheet.people.filter(one => one.reachable !== false).length, 'person')}`"
      @submit="issue"
    >
      <p v-if="sheet.gaps.length" class="carried strong">
        {{ count(sheet.gaps.length, 'thing') }} to look at {{ sheet.gaps.length === 1 ? 'is' : 'are' }} still open,
        under “Before you issue”.
      </p>
      <p>
        The minutes are frozen as they are and mailed to everybody of the series, with a PDF. What is wrong later is
        corrected by another version.
      </p>
      <p class="soft">{{ sheet.people.map(person => person.name).join(', ') }}. {{ whoGets(sheet.people) }}.</p>
    </FormDialog>
    <FormDialog
      v-model="correcting"
      v-model:form="why"
      :draft="`correct-${sheet.id}`"
      title="Correct the minutes"
      verb="Open them"
      @submit="correct"
    >
      <p>They can be edited then, and are issued as another version. What was issued stays readable.</p>
      <v-text-field
        v-model="why.reason"
        label="Why"
        :error-messages="
          triedToCorrect && !why.reason.trim() ? 'Say why, for everybody who has the minutes.' : undefined
        "
        autofocus
      />
    </FormDialog>
    <FormDialog
      v-model="callingOff"
      v-model:form="form"
      :draft="`call-off-${sheet.id}`"
      title="Call the meeting off"
      verb="Call it off"
      @submit="callOff"
    >
      <p>Its topics move on to the next meeting. Nobody is told until you send the invitation again.</p>
      <v-text-field
        v-model="form.reason"
        label="Why"
        :error-messages="tried && !form.reason.trim() ? 'Say why, so that people understand.' : undefined"
        autofocus
      />
    </FormDialog>
  </div>
</template>

<style scoped>
.files {
  margin-top: 12px;
  text-align: center;
}
.deeds {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 4px;
  justify-items: center;
  text-align: center;
  margin-top: 10px;
  padding: 8px 0 12px;
  background: var(--paper);
}
.deeds > .v-btn {
  width: 100%;
  margin-bottom: 3px;
}
</style>
