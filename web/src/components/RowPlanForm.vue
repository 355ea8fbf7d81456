<script setup lang="ts">
import { ref, watch } from 'vue'
import { type Sheet } from '../api/client'
import { useRowPicking } from '../composables/useRow'
import { clock } from '../time'
import FormDialog from './FormDialog.vue'
import TimeField from './TimeField.vue'
import { useFaults } from '../composables/useFaults'

/** A row of times within the meeting, from which each on a list picks one by a link of their own. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ show: [Sheet] }>()
const { plan, planError, isPlanning } = useRowPicking(
  () => sheet.id,
  shown => emit('show', shown),
)
const filled = () => ({
  lengthMin: sheet.rowPlan?.lengthMin ?? 20,
  pauseMin: sheet.rowPlan?.pauseMin ?? 5,
  breaks: (sheet.rowPlan?.breaks ?? []).map(({ from, to }) => ({ from: clock(from), to: clock(to) })),
  people: (sheet.rowPickers ?? []).map(({ name, email }) => ({ name, email })),
})
const form = ref(filled())
watch(open, shown => {
  if (!shown) return
  form.value = filled()
  if (!form.value.people.length) form.value.people.push({ name: '', email: '' })
})
const { at, rest: unplaced } = useFaults(planError, /^\/(lengthMin|pauseMin|breaks(\/\d+)?|people\/\d+\/(name|email))$/)
async function save() {
  const day = sheet.localStart.slice(0, 11)
  const { lengthMin, pauseMin, breaks, people } = form.value
  try {
    await plan({
      lengthMin,
      pauseMin,
      breaks: breaks
        .filter(one => one.from && one.to)
        .map(({ from, to }) => ({ from: `${day}${from}`, to: `${day}${to}` })),
      people: people.filter(one => one.name.trim() || one.email.trim()),
    })
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
    :draft="`row-plan-${sheet.id}`"
    title="Times to pick from"
    verb="Save"
    :error="unplaced"
    :busy="isPlanning"
    :width="640"
    @submit="save"
  >
    <p class="soft small">
      Each on the list gets a link and picks one; nobody sees who has the others. Whoever a change concerns picks anew.
    </p>
    <div class="line">
      <v-text-field
        v-model.number="form.lengthMin"
        type="number"
        min="1"
        label="Minutes each"
        :error-messages="at('/lengthMin')"
      />
      <v-text-field
        v-model.number="form.pauseMin"
        type="number"
        min="0"
        label="Minutes between"
        :error-messages="at('/pauseMin')"
      />
    </div>
    <fieldset v-for="(one, i) in form.breaks" :key="`break-${i}`" class="line" :aria-label="`Break ${i + 1}`">
      <TimeField v-model="one.from" label="Break from" :error-messages="at(`/breaks/${i}`) ?? at('/breaks')" />
      <TimeField v-model="one.to" label="to" />
      <button type="button" class="quiet small" :aria-label="`Remove break ${i + 1}`" @click="form.breaks.splice(i, 1)">
        Remove
      </button>
    </fieldset>
    <p><button type="button" class="quiet" @click="form.breaks.push({ from: '', to: '' })">Add a break</button></p>
    <fieldset v-for="(one, i) in form.people" :key="`person-${i}`" class="line" :aria-label="`Person ${i + 1}`">
      <v-text-field v-model="one.name" label="Name" :error-messages="at(`/people/${i}/name`)" />
      <v-text-field v-model="one.email" label="Mail address" type="email" :error-messages="at(`/people/${i}/email`)" />
      <button
        type="button"
        class="quiet small"
        :aria-label="`Remove person ${i + 1}`"
        @click="form.people.splice(i, 1)"
      >
        Remove
      </button>
    </fieldset>
    <p>
      <button type="button" class="quiet" @click="form.people.push({ name: '', email: '' })">Add a person</button>
    </p>
  </FormDialog>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  padding: 0;
  margin: 0;
  border: 0;
}
</style>
