<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import { type Person, type Schemas } from '../api/client'
import { usePlaces } from '../composables/usePlaces'
import FormDialog from './FormDialog.vue'
import WeekHours from './WeekHours.vue'
import ZoneField from './ZoneField.vue'
import { useFaults } from '../composables/useFaults'

/** A room or a piece of equipment: new, or changed. */
const { place, people, timeZone } = defineProps<{
  place: Schemas['Place'] | Schemas['PlacePage'] | null
  people: Person[]
  timeZone: string
}>()
const open = defineModel<boolean>({ required: true })

const { save, saveError, isSaving, resetSave } = usePlaces()
const form = ref({
  id: '',
  name: '',
  kind: 'room' as 'room' | 'equipment',
  seats: null as number | null,
  equipment: [] as string[],
  prepares: [] as Schemas['Prepares'],
  timeZone: '',
  whereabouts: '',
  lookedAfterById: null as string | null,
  opening: false,
  openingHours: {} as Schemas['WeekHours'],
})
watch(
  open,
  shown => {
    if (!shown) return
    resetSave()
    form.value = {
      id: place?.id ?? newKey(),
      name: place?.name ?? '',
      kind: place?.kind ?? 'room',
      seats: place?.seats ?? null,
      equipment: [...(place?.equipment ?? [])],
      prepares: (place?.prepares ?? []).map(one => ({ ...one })),
      timeZone: place?.timeZone ?? timeZone,
      whereabouts: place?.whereabouts ?? '',
      lookedAfterById: place?.lookedAfterBy?.id ?? null,
      opening: !!place?.openingHours,
      openingHours: place?.openingHours ?? {
        mo: [['07:00', '18:00']],
        tu: [['07:00', '18:00']],
        we: [['07:00', '18:00']],
        th: [['07:00', '18:00']],
        fr: [['07:00', '18:00']],
      },
    }
  },
  { immediate: true },
)
const { at, rest } = useFaults(saveError, /^\/name$/)
const unsure = ref(false)
const choices = computed(() => people.map(person => ({ title: person.name, value: person.id })))

async function keep() {
  const { opening, openingHours, seats, whereabouts, ...rest } = form.value
  try {
    await save({
      ...rest,
      seats: seats || null,
      whereabouts: whereabouts || null,
      openingHours: opening ? openingHours : null,
      ...(place ? { version: place.version } : {}),
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
    :draft="`place-${place?.id ?? 'new'}`"
    :title="place ? place.name : 'Add a place'"
    :verb="place ? 'Save' : 'Add'"
    :disabled="unsure"
    :error="rest"
    :busy="isSaving"
    :width="620"
    @submit="keep"
  >
    <v-text-field v-model="form.name" label="Name" autofocus :error-messages="at('/name')" />
    <div class="pair">
      <v-select
        v-model="form.kind"
        :items="[
          { title: 'a room', value: 'room' },
          { title: 'a piece of equipment', value: 'equipment' },
        ]"
        label="It is"
      /><v-text-field v-model.number="form.seats" type="number" min="1" label="Seats" :error-messages="at('/seats')" />
    </div>
    <v-combobox
      v-model="form.equipment"
      multiple
      chips
      closable-chips
      label="What stands in it"
      variant="outlined"
      density="compact"
      hide-details="auto"
    />
    <div class="pair">
      <v-text-field v-model="form.whereabouts" label="Where it is" /><ZoneField
        v-model="form.timeZone"
        :error-messages="at('/timeZone')"
      />
    </div>
    <fieldset class="ready">
      <legend class="small soft">Can be had ready, such as catering, a telephone line, tables in a row</legend>
      <div v-for="(one, i) in form.prepares" :key="i" class="item">
        <v-text-field v-model="one.name" label="What" />
        <v-text-field v-model.number="one.beforeMin" label="Minutes before" type="number" min="0" />
        <button
          type="button"
          class="quiet small"
          :aria-label="`Remove: ${one.name}`"
          @click="form.prepares.splice(i, 1)"
        >
          Remove
        </button>
      </div>
      <button type="button" class="quiet" @click="form.prepares.push({ name: '', beforeMin: 0 })">Add something</button>
    </fieldset>
    <v-select v-model="form.lookedAfterById" :items="choices" label="Looked after by" clearable />
    <v-checkbox v-model="form.opening" label="Open at certain hours only" />
    <WeekHours
      v-if="form.opening"
      v-model="form.openingHours"
      v-model:unsure="unsure"
      :at="pointer => at(`/openingHours/${pointer}`)"
    />
  </FormDialog>
</template>

<style scoped>
.ready {
  border: 0;
  padding: 0;
  margin: 0;
}
.item {
  display: grid;
  grid-template-columns: 2fr 1fr auto;
  gap: 12px;
  align-items: center;
  margin-top: 6px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
