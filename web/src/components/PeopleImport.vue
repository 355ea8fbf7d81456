<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { base64, keepImport, previewImport } from '../composables/useCalendars'
import { useNotice } from '../composables/useNotice'
import { count } from '../time'
import FormDialog from './FormDialog.vue'

/** Many people from a table or vCards: all problems are seen before anything is kept. */
const { timeZone } = defineProps<{ timeZone: string }>()
const open = defineModel<boolean>({ required: true })
const cache = useQueryClient()
const { say } = useNotice()
const preview = ref<Schemas['PeoplePreview'] | null>(null)
const error = ref<Error | null>(null)
const busy = ref(false)
const LARGEST_BYTES = 5_000_000
const keys = ref<string[]>([])
const invite = ref(true)
watch(open, shown => { if (shown) { preview.value = null; error.value = null } })
const fine = computed(() => preview.value?.people.map((person, i) => ({ ...person, id: keys.value[i]! })).filter(person => person.problems.length === 0) ?? [])
const people = (number: number) => count(number, 'person').replace('persons', 'people')

async function read(files: File | File[] | undefined) {
  const file = Array.isArray(files) ? files[0] : files
  if (!file) return
  error.value = file.size > LARGEST_BYTES ? new Error('This file is larger than 5 MB. Split it, or leave out pictures.') : file.size === 0 ? new Error('This file is empty.') : null
  if (error.value) return
  busy.value = true
  try {
    preview.value = await previewImport({ content: await base64(file), kind: /\.vcf$/i.test(file.name) || file.type.includes('vcard') ? 'vcard' : 'csv', timeZone })
    keys.value = preview.value.people.map(() => newKey())
  } catch (fault) { preview.value = null; error.value = fault as Error } finally { busy.value = false }
}
async function keep() {
  busy.value = true
  try {
    const { kept } = await keepImport({ people: fine.value.map(({ id, name, email, timeZone: zone }) => ({ id, name, email, timeZone: zone })), invite: invite.value })
    cache.invalidateQueries({ queryKey: ['people'] })
    open.value = false
    say(`${people(kept)} imported.`)
  } catch (fault) { error.value = fault as Error } finally { busy.value = false }
}
</script>

<template>
  <FormDialog v-model="open" title="Import people" :verb="preview ? `Import ${people(fine.length)}` : 'Import'" :error="error" :busy="busy" :disabled="fine.length === 0" :width="760" @submit="keep">
    <v-file-input label="A table (.csv) or vCards (.vcf)" accept=".csv,.vcf,text/csv,text/vcard" variant="outlined" density="compact" prepend-icon="" hint="A table names its columns in the first line: name, mail address, time zone" persistent-hint @update:model-value="read" />
    <div v-if="preview" role="status">
      <v-checkbox v-model="invite" label="Mail them a link to sign in" />
      <p class="strong">{{ people(preview.fine) }} can be imported<template v-if="preview.faulty">, {{ preview.faulty }} cannot</template>.</p>
      <ul class="ruled found small">
        <li v-for="person in preview.people" :key="person.line" :class="{ stuck: person.problems.length }"><span class="soft">{{ person.line }}</span> <b>{{ person.name || '–' }}</b> {{ person.email }} <span class="soft">{{ person.timeZone }}</span><br v-if="person.problems.length">{{ person.problems.join(' ') }}</li>
      </ul>
    </div>
  </FormDialog>
</template>

<style scoped>
.found { max-height: 320px; overflow: auto; }
</style>
