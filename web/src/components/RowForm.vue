<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { ref, watch } from 'vue'
import { type Sheet } from '../api/client'
import { useRow } from '../composables/useRow'
import { addDays } from '../reading'
import { addMinutes, clock } from '../time'
import FormDialog from './FormDialog.vue'
import TimeField from './TimeField.vue'
import { useFaults } from '../composables/useFaults'

/** Who comes when within the meeting: a line each. A new line goes on where the last one ends. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ show: [Sheet] }>()
const { set, setError, isSetting } = useRow(
  () => sheet.id,
  shown => emit('show', shown),
)
interface Line {
  id: string
  name: string
  email: string
  time: string
  lengthMin: number
}
const form = ref<Line[]>([])
function addLine() {
  const last = form.value.at(-1)
  const day = sheet.localStart.slice(0, 11)
  form.value.push({
    id: newKey(),
    name: '',
    email: '',
    time: last ? clock(addMinutes(`${day}${last.time}:00`, last.lengthMin)) : clock(sheet.localStart),
    lengthMin: last?.lengthMin ?? 15,
  })
}
watch(open, shown => {
  if (!shown) return
  form.value = sheet.row.map(({ id, name, email, localStart, lengthMin }) => ({
    id,
    name,
    email,
    time: clock(localStart),
    lengthMin,
  }))
  if (!form.value.length) addLine()
})
const { at, rest: unplaced } = useFaults(setError, /^\/slots\/\d+\/(name|email|localStart|lengthMin)$/)
async function save() {
  // Of a meeting that passes midnight, ten past twelve is the next day's.
  const day = sheet.localStart.slice(0, 10)
  const wall = (time: string) => `${time < clock(sheet.localStart) ? addDays(day, 1) : day}T${time}`
  try {
    await set(form.value.map(({ time, ...line }) => ({ ...line, localStart: wall(time) })))
    open.value = false
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`row-${sheet.id}`"
    title="One after another"
    verb="Save"
    :error="unplaced"
    :busy="isSetting"
    :width="720"
    @submit="save"
  >
    <p class="soft small">
      Each is told only their own time, once you press “Tell”. They wait at the door of the call until you let them in.
    </p>
    <fieldset v-for="(line, i) in form" :key="line.id" class="one" :aria-label="`Number ${i + 1}`">
      <v-text-field v-model="line.name" label="Name" :error-messages="at(`/slots/${i}/name`)" />
      <v-text-field v-model="line.email" label="Mail address" type="email" :error-messages="at(`/slots/${i}/email`)" />
      <TimeField v-model="line.time" label="From" :error-messages="at(`/slots/${i}/localStart`)" />
      <v-text-field
        v-model.number="line.lengthMin"
        label="Minutes"
        type="number"
        min="1"
        :error-messages="at(`/slots/${i}/lengthMin`)"
      />
      <button type="button" class="quiet small" :aria-label="`Remove number ${i + 1}`" @click="form.splice(i, 1)">
        Remove
      </button>
    </fieldset>
    <p><button type="button" class="quiet" @click="addLine()">Add another</button></p>
  </FormDialog>
</template>

<style scoped>
.one {
  display: grid;
  grid-template-columns: 1.2fr 1.6fr 90px 90px auto;
  gap: 8px;
  align-items: center;
  padding: 0;
  margin: 0;
  border: 0;
}
@media (max-width: 600px) {
  .one {
    grid-template-columns: 1fr 1fr;
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
}
</style>
