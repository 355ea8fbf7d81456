<script setup lang="ts">
import { type Schemas } from '../api/client'
import { DAYS, type Look } from '../commonTime'
import DateField from './DateField.vue'
import TimeField from './TimeField.vue'
import WeekdayButtons from './WeekdayButtons.vue'
import { useFaults } from '../composables/useFaults'

/** What is looked for, besides the people. */
const { places, error } = defineProps<{ places: Schemas['Place'][]; error: Error | null }>()
const look = defineModel<Look>({ required: true })

const { at } = useFaults(() => error)
const STEPS = [5, 10, 15, 30, 60].map(value => ({ value, title: `every ${value} min` }))
const NOTICES = [
  { title: 'from now on', value: 0 },
  { title: 'from tomorrow on', value: 1440 },
  { title: 'in two days', value: 2880 },
  { title: 'in a week', value: 10080 },
]
const GAPS = [{ title: 'none', value: 0 }, ...[5, 10, 15, 30].map(value => ({ title: `${value} min`, value }))]
const STRETCHES = [
  { title: 'within them', value: 0 },
  { title: 'up to 30 min outside', value: 30 },
  { title: 'up to an hour outside', value: 60 },
  { title: 'up to two hours outside', value: 120 },
  { title: 'at any hour', value: null },
]
const PLACES = () => [
  { title: 'no place wanted', value: 'none' },
  { title: 'any that fits', value: 'fitting' },
  ...places.map(place => ({ title: place.name, value: place.id })),
  // Chosen already, while the places are still being read.
  ...(['none', 'fitting', ...places.map(place => place.id)].includes(look.value.place)
    ? []
    : [{ title: '…', value: look.value.place }]),
]
const REPEATS = [
  { title: 'weekly', value: 'weekly' },
  { title: 'monthly, on a weekday', value: 'month-weekday' },
  { title: 'monthly, on this date', value: 'month-day' },
]
const NTHS = [
  [1, 'the first'],
  [2, 'the second'],
  [3, 'the third'],
  [4, 'the fourth'],
  [-1, 'the last'],
].map(([value, title]) => ({ value, title }))
</script>

<template>
  <div class="fields">
    <DateField v-model="look.fromDay" label="From" :error-messages="at('/fromDay')" />
    <v-text-field
      v-model.number="look.days"
      type="number"
      min="1"
      max="366"
      label="Days"
      :error-messages="at('/days')"
    />
    <TimeField v-model="look.dayFrom" label="Not before" :error-messages="at('/dayFrom')" />
    <TimeField v-model="look.dayTo" label="Ends by" :error-messages="at('/dayTo')" />
    <v-select v-model="look.stretchMin" :items="STRETCHES" label="Working hours" />
    <v-select v-model="look.stepMin" :items="STEPS" label="Starts" />
    <v-select v-model="look.noticeMin" :items="NOTICES" label="Notice" />
    <v-select v-model="look.gapMin" :items="GAPS" label="Gap around it" />
    <v-select v-model="look.place" :items="PLACES()" label="Place" :error-messages="at('/place')" />
    <template v-if="look.place !== 'none'">
      <v-text-field v-if="look.place === 'fitting'" v-model.number="look.seats" type="number" min="1" label="Seats" />
      <v-combobox
        v-if="look.place === 'fitting'"
        v-model="look.equipment"
        multiple
        chips
        label="Equipment"
        hint="such as Screen"
      />
      <v-text-field v-model.number="look.beforeMin" type="number" min="0" max="240" label="Set-up, min" />
      <v-text-field v-model.number="look.afterMin" type="number" min="0" max="240" label="Run-over, min" />
    </template>
    <WeekdayButtons v-model="look.weekdays" :days="DAYS" label="Days of the week" class="across">
      <p v-if="at('/weekdays')" class="small alarm" role="alert">{{ at('/weekdays') }}</p>
    </WeekdayButtons>
    <v-checkbox v-model="look.across" label="Across a run" class="across" />
    <template v-if="look.across">
      <v-select v-model="look.run.repeat" :items="REPEATS" label="Repeats" />
      <v-select v-if="look.run.repeat === 'month-weekday'" v-model="look.run.nth" :items="NTHS" label="On" />
      <v-text-field
        v-model.number="look.run.interval"
        type="number"
        min="1"
        max="52"
        label="Every"
        :suffix="look.run.repeat === 'weekly' ? 'weeks' : 'months'"
      />
      <v-text-field
        v-model.number="look.run.count"
        type="number"
        min="1"
        max="60"
        label="Meetings"
        :error-messages="at('/count')"
      />
    </template>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  gap: 12px;
  align-items: start;
}
.across {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .fields {
    grid-template-columns: 1fr 1fr;
    gap: 10px 8px;
  }
  .fields :deep(.v-field) {
    --v-field-padding-start: 10px;
    --v-field-padding-end: 6px;
    font-size: 1rem;
  }
  .fields :deep(.v-field__input) {
    font-size: 1rem;
  }
}
</style>
