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
    drafts.value = (await whenRead(dataOf(handedIn))).series!.series
    chosen.value = 0
  } catch (fault) {
    drafts.value = null
    error.value = fault as Error
  } finally {
    busy.value = false
  }
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
    :disabled="!drafts"
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
        {{ count(draft.personIds.length, 'person') }} known here, {{ count(draft.guests.length, 'guest')
        }}<template v-if="draft.moves.length">; {{ count(draft.moves.length, 'date') }} moved</template
        ><template v-if="draft.calledOff.length"
          >; {{ count(draft.calledOff.length, 'date') }} called off</template
        ></label
      >
    </fieldset>
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
