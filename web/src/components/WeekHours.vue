<script setup lang="ts">
import type { Schemas } from '../api/client'
import { DAYS, type DayCode } from '../commonTime'

/** Weekly hours, several ranges a day. `at` gives the sentence against a day or range. */
const { at } = defineProps<{ at: (pointer: string) => string | undefined }>()
const hours = defineModel<Schemas['WeekHours']>({ required: true })

const ranges = (day: DayCode) => hours.value[day] ?? []
function add(day: DayCode) {
  const last = ranges(day).at(-1)
  hours.value = { ...hours.value, [day]: [...ranges(day), last ? [last[1]!, '18:00'] : ['08:00', '16:00']] }
}
function set(day: DayCode, i: number, end: 0 | 1, value: string) {
  hours.value = { ...hours.value, [day]: ranges(day).map((range, j) => (i === j ? range.map((text, k) => (k === end ? value : text)) : range)) }
}
const drop = (day: DayCode, i: number) => { hours.value = { ...hours.value, [day]: ranges(day).filter((_, j) => j !== i) } }
const faultOf = (day: DayCode) => at(day) ?? ranges(day).map((_, i) => at(`${day}/${i}`)).find(Boolean)
</script>

<template>
  <ul class="ruled week">
    <li v-for="[day, name] in DAYS" :key="day">
      <span class="name">{{ name }}</span>
      <span class="ranges">
        <span v-for="(range, i) in ranges(day)" :key="i" class="range">
          <input type="time" :value="range[0]" :aria-label="`${name}, from`" @change="set(day, i, 0, ($event.target as HTMLInputElement).value)"> –
          <input type="time" :value="range[1]" :aria-label="`${name}, to`" @change="set(day, i, 1, ($event.target as HTMLInputElement).value)">
          <button type="button" class="quiet small" :aria-label="`Take away: ${name} ${range[0]}`" @click="drop(day, i)">Take away</button>
        </span>
        <span v-if="ranges(day).length === 0" class="soft">off</span>
        <button type="button" class="quiet small" :aria-label="`Add hours on ${name}`" @click="add(day)">Add hours</button>
      </span>
      <p v-if="faultOf(day)" class="small stuck" role="alert">{{ faultOf(day) }}</p>
    </li>
  </ul>
</template>

<style scoped>
.week li { display: grid; grid-template-columns: 100px 1fr; padding: 5px 0; align-items: baseline; }
.week p { grid-column: 2; }
.ranges { display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: baseline; }
input { font: inherit; color: inherit; background: none; border: 1px solid var(--line); border-radius: 6px; padding: 2px 6px; }
</style>
