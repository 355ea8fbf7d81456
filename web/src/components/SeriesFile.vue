<script setup lang="ts">
import { ref } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { whenRead } from '../composables/fileReading'
import { base64 } from '../composables/useCalendars'
import { clock, count, mediumDay } from '../time'
import FormDialog from './FormDialog.vue'

/** A series kept elsewhere moves in: a calendar file is read and shown, and fills the form. Nothing is made by this. */
type Draft = Schemas['SeriesDraft']
const emit = defineEmits<{ take: [Draft] }>()
const open = ref(false)
const drafts = ref<Draft[] | null>(null)
const leftOut = ref<Schemas['SeriesDrafts']['leftOut']>([])
const chosen = ref(0)
const error = ref<Error | null>(null)
const busy = ref(false)

async function read(files: File | File[] | undefined) {
  const file = Array.isArray(files) ? files[0] : files
  if (!file) return
  busy.value = true
  error.value = null
  try {
    const handedIn = api.POST('/series-drafts', { body: { content: await base64(file) } })
    const found = (await whenRead(dataOf(handedIn))).series!
    drafts.value = found.series
    leftOut.value = found.leftOut
    chosen.value = 0
  } catch (fault) {
    drafts.value = null
    error.value = fault as Error
  } finally {
    busy.value = false
  }
}
const MOST_SHOWN = 12
const day = (wall: string) => mediumDay(wall)
/** What of its dates is not as the rule says. */
function exceptions(draft: Draft) {
  const all = [
    ...draft.calledOff.map(one => `Not on ${day(one.on)}${one.reason ? `: ${one.reason}` : ''}`),
    ...draft.moves.map(one => {
      const length = one.lengthMin ? `, ${count(one.lengthMin, 'minute')}` : ''
      const at = `${day(one.to)}, ${clock(`${one.to}:00`)}${length}`
      return one.from === one.to ? at : `${at} instead of ${day(one.from)}`
    }),
    ...draft.added.map(one => `Besides on ${day(one)}, ${clock(`${one}:00`)}`),
  ]
  const rest = all.length - MOST_SHOWN
  return rest > 0 ? [...all.slice(0, MOST_SHOWN), `and ${rest} more`] : all
}
function take() {
  const draft = drafts.value?.[chosen.value]
  if (!draft) return
  emit('take', draft)
  open.value = false
}
</script>

<template>
  <button type="button" class="quiet" @click="open = true">From a calendar file</button>
  <FormDialog
    v-model="open"
    title="A series moves in"
    verb="Fill the form"
    :disabled="!drafts?.length"
    :error="error"
    :busy="busy"
    @submit="take"
  >
    <v-file-input label="Calendar file (.ics)" accept=".ics,text/calendar" @update:model-value="read" />
    <fieldset v-if="drafts" class="found">
      <legend class="small soft">{{ count(drafts.length, 'repeating meeting') }} with dates to come</legend>
      <label v-for="(draft, i) in drafts" :key="i"
        ><input v-model="chosen" type="radio" name="draft" :value="i" /> <b>{{ draft.title }}</b>, next
        {{ mediumDay(draft.dates[0]!) }}, {{ clock(`${draft.dates[0]}:00`) }};
        {{ count(draft.people.length, 'person') }} known here, {{ count(draft.guests.length, 'guest') }}
        <ul v-if="exceptions(draft).length" class="small soft">
          <li v-for="words in exceptions(draft)" :key="words">{{ words }}</li>
        </ul></label
      >
    </fieldset>
    <section v-if="leftOut.length" aria-labelledby="left-out">
      <h3 id="left-out">Not taken</h3>
      <ul class="small">
        <li v-for="(one, i) in leftOut" :key="i">
          <b>{{ one.title || 'No title' }}</b><template v-if="one.on">, {{ one.on }}</template
          >: {{ one.why }}
        </li>
      </ul>
    </section>
    <p class="soft small">Nothing is made yet, and nobody is told.</p>
  </FormDialog>
</template>

<style scoped>
.found {
  border: 0;
  padding: 0;
  margin: 0;
}
.found label {
  display: block;
  padding: 4px 0;
}
</style>
