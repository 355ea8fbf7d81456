<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import { type Schemas } from '../api/client'
import { base64, keepImport, previewImport } from '../composables/useCalendars'
import { useNotice } from '../composables/useNotice'
import { count } from '../time'
import FormDialog from './FormDialog.vue'
import ZoneField from './ZoneField.vue'
import { useFaults } from '../composables/useFaults'

/** Many people from a table or vCards: all problems are seen before anything is kept, and rows can be mended here. */
const { timeZone } = defineProps<{ timeZone: string }>()
const open = defineModel<boolean>({ required: true })
const cache = useQueryClient()
const { say } = useNotice()

const LARGEST_BYTES = 5_000_000
type Row = Schemas['PeoplePreview']['people'][number] & { id: string; mending: boolean }
const rows = ref<Row[] | null>(null)
const error = ref<Error | null>(null)
const busy = ref(false)
const invite = ref(true)
watch(open, shown => {
  if (shown) {
    rows.value = null
    error.value = null
  }
})
const fine = computed(() => rows.value?.filter(row => row.problems.length === 0 || row.mending) ?? [])
const faulty = computed(() => (rows.value?.length ?? 0) - fine.value.length)
const people = (number: number) => count(number, 'person')
/** What the server says against a row, at its field. */
const faults = useFaults(error)
const at = (row: Row, name: string) => faults.at(`/people/${fine.value.indexOf(row)}/${name}`)
const atRow = computed(() => fine.value.some(row => ['name', 'email', 'timeZone'].some(name => at(row, name))))

async function read(files: File | File[] | undefined) {
  const file = Array.isArray(files) ? files[0] : files
  if (!file) return
  error.value =
    file.size > LARGEST_BYTES
      ? new Error('This file is larger than 5 MB. Split it, or leave out pictures.')
      : file.size === 0
        ? new Error('This file is empty.')
        : null
  if (error.value) return
  busy.value = true
  try {
    const preview = await previewImport({
      content: await base64(file),
      kind: /\.vcf$/i.test(file.name) || file.type.includes('vcard') ? 'vcard' : 'csv',
      timeZone,
    })
    rows.value = preview.people.map(person => ({ ...person, id: newKey(), mending: false }))
  } catch (fault) {
    rows.value = null
    error.value = fault as Error
  } finally {
    busy.value = false
  }
}
async function keep() {
  busy.value = true
  error.value = null
  try {
    const { kept } = await keepImport({
      people: fine.value.map(({ id, name, email, timeZone: zone, phone, groups }) => ({
        id,
        name: name.trim(),
        email: email.trim(),
        timeZone: zone,
        phone,
        groups,
      })),
      invite: invite.value,
    })
    cache.invalidateQueries({ queryKey: ['people'] })
    open.value = false
    say(`${people(kept)} imported.`)
  } catch (fault) {
    error.value = fault as Error
    rows.value?.forEach(row => {
      if (['name', 'email', 'timeZone'].some(name => at(row, name))) row.mending = true
    })
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Import people"
    :verb="rows ? `Import ${people(fine.length)}` : 'Import'"
    :error="atRow ? null : error"
    :busy="busy"
    :disabled="fine.length === 0"
    :width="760"
    @submit="keep"
  >
    <v-file-input
      label="A table (.csv) or vCards (.vcf)"
      accept=".csv,.vcf,text/csv,text/vcard"
      variant="outlined"
      density="compact"
      prepend-icon=""
      hint="A table names its columns in the first line: name, mail address, time zone, telephone, group"
      persistent-hint
      @update:model-value="read"
    />
    <div v-if="rows" role="status">
      <v-checkbox v-model="invite" label="Mail them a link to sign in" />
      <p class="strong">
        {{ people(fine.length) }} can be imported<template v-if="faulty">, {{ faulty }} cannot yet</template>.
      </p>
    </div>
    <ul v-if="rows" class="ruled small">
      <li v-for="row in rows" :key="row.id" :class="{ alarm: row.problems.length && !row.mending }">
        <template v-if="row.mending">
          <span class="soft">{{ row.line }}</span>
          <div class="mend">
            <v-text-field v-model="row.name" label="Name" :error-messages="at(row, 'name')" />
            <v-text-field v-model="row.email" label="Mail address" type="email" :error-messages="at(row, 'email')" />
            <ZoneField v-model="row.timeZone" :error-messages="at(row, 'timeZone')" />
          </div>
        </template>
        <template v-else>
          <span class="soft">{{ row.line }}</span> <b>{{ row.name || '–' }}</b> {{ row.email }}
          <span class="soft">{{ [row.timeZone, row.phone, ...row.groups].filter(Boolean).join(' · ') }}</span>
          <span v-if="row.remark" class="carried"> {{ row.remark }}</span>
          <template v-if="row.problems.length"
            ><br />{{ row.problems.join(' ') }}
            <button
              type="button"
              class="quiet small"
              :aria-label="`Correct line ${row.line}`"
              @click="row.mending = true"
            >
              Correct it
            </button></template
          >
        </template>
      </li>
    </ul>
  </FormDialog>
</template>

<style scoped>
.mend {
  display: grid;
  grid-template-columns: 1fr 1.3fr 1fr;
  gap: 8px;
  padding: 6px 0;
}
@media (max-width: 600px) {
  .mend {
    grid-template-columns: 1fr;
  }
}
</style>
