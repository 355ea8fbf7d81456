<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { addActions, readActions } from '../composables/useActions'
import { base64 } from '../composables/useCalendars'
import { useChanged } from '../composables/useChanged'
import { useNotice } from '../composables/useNotice'
import { count, list, shortDay } from '../time'
import DateField from './DateField.vue'
import FormDialog from './FormDialog.vue'

/** Actions from a table or from to-dos, into one series: all that is in the file is seen before anything is kept. */
const { series } = defineProps<{ series: Schemas['Named'][] }>()
const open = defineModel<boolean>({ required: true })
const { say } = useNotice()
const changed = useChanged()

const LARGEST_BYTES = 2_000_000
type Row = Schemas['ActionsRead']['actions'][number] & { id: string; wanted: boolean }
const seriesId = ref<string | null>(null)
const file = ref<File | null>(null)
const rows = ref<Row[] | null>(null)
const error = ref<Error | null>(null)
const busy = ref(false)
watch(open, shown => {
  if (!shown) return
  rows.value = null
  file.value = null
  error.value = null
  seriesId.value = series.length === 1 ? series[0]!.id : null
})
const wanted = computed(() => rows.value?.filter(row => row.wanted && !row.problems.length) ?? [])

watch([file, seriesId], async () => {
  rows.value = null
  error.value = null
  if (!file.value || !seriesId.value) return
  if (file.value.size > LARGEST_BYTES) {
    error.value = new Error('This file is larger than 2 MB.')
    return
  }
  busy.value = true
  try {
    const kind = /\.ics$/i.test(file.value.name) || file.value.type.includes('calendar') ? 'ics' : 'csv'
    const read = await readActions(seriesId.value, { content: await base64(file.value), kind })
    rows.value = read.actions.map(action => ({
      ...action,
      id: newKey(),
      wanted: !action.done && action.problems.length === 0 && !action.double,
    }))
  } catch (fault) {
    error.value = fault as Error
  } finally {
    busy.value = false
  }
})

async function keep() {
  busy.value = true
  try {
    const { kept } = await addActions(
      seriesId.value!,
      wanted.value.map(({ id, text, owners, dueOn }) => ({ id, text, dueOn, ownerIds: owners.map(owner => owner.id) })),
    )
    changed('action')
    open.value = false
    say(`${count(kept, 'action')} imported.`)
  } catch (fault) {
    error.value = fault as Error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Import actions"
    :verb="rows ? `Import ${count(wanted.length, 'action')}` : 'Import'"
    :error="error"
    :busy="busy"
    :disabled="wanted.length === 0"
    :width="700"
    @submit="keep"
  >
    <v-select
      v-model="seriesId"
      :items="series.map(one => ({ title: one.name, value: one.id }))"
      label="Into the series"
    />
    <v-file-input
      v-model="file"
      label="A table (.csv) or to-dos (.ics)"
      accept=".csv,.ics,text/csv,text/calendar"
      variant="outlined"
      density="compact"
      prepend-icon=""
      hint="A table names its columns in the first line: action, owners, due, state"
      persistent-hint
    />
    <ul v-if="rows" class="ruled small" role="status">
      <li v-for="row in rows" :key="row.id" class="one">
        <input v-model="row.wanted" type="checkbox" :disabled="row.problems.length > 0" :aria-label="row.text" />
        <span>
          <b>{{ row.text || '–' }}</b>
          <span class="soft">
            {{ list(row.owners.map(owner => owner.name)) || 'nobody yet'
            }}<template v-if="row.dueOn">, due {{ shortDay(row.dueOn) }}</template
            ><template v-if="row.done">, closed already</template>
          </span>
          <span v-if="row.unknown.length" class="carried">
            Not in the series: {{ list(row.unknown) }}; it will have no such owner.
          </span>
          <span v-if="row.double" class="carried strong">{{ row.double }}</span>
          <span v-if="row.doubt" class="doubt">
            <span class="carried">{{ row.doubt }} Put it right, or leave it empty: then it has no date.</span>
            <DateField v-model="row.dueOn" :label="`Due, “${row.dateText}” in the file`" clearable />
          </span>
          <span v-if="row.problems.length" class="alarm">{{ row.problems.join(' ') }}</span>
        </span>
      </li>
    </ul>
  </FormDialog>
</template>

<style scoped>
.one {
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 10px;
  align-items: start;
  overflow-wrap: anywhere;
}
</style>
