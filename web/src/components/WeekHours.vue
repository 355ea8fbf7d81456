<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../api/client'
import { DAYS, type DayCode } from '../commonTime'
import TimeField from './TimeField.vue'

/**
 * Weekly hours, several ranges a day. `at` gives the sentence against a day or range. An end before its start may be
 * meant to pass midnight, or be a slip: it is asked about, and `unsure` until that is settled.
 */
const { at } = defineProps<{ at: (pointer: string) => string | undefined; readonly?: boolean }>()
const hours = defineModel<Schemas['WeekHours']>({ required: true })
const unsure = defineModel<boolean>('unsure', { default: false })

const ranges = (day: DayCode) => hours.value[day] ?? []
const signOf = (day: DayCode, range: string[]) => `${day} ${range.join('–')}`
const isOvernight = (range: string[]) => !!range[0] && !!range[1] && range[1] <= range[0]
const all = computed(() =>
  DAYS.flatMap(({ code: day }) =>
    ranges(day)
      .filter(isOvernight)
      .map(range => signOf(day, range)),
  ),
)
// What stood there already was meant so.
const settled = ref(new Set(all.value))
const settle = (day: DayCode, range: string[]) => {
  settled.value = new Set([...settled.value, signOf(day, range)])
}
const asks = (day: DayCode, range: string[]) => isOvernight(range) && !settled.value.has(signOf(day, range))
watch(
  () => all.value.some(sign => !settled.value.has(sign)),
  now => {
    unsure.value = now
  },
  { immediate: true },
)

function put(day: DayCode, changed: string[][]) {
  hours.value = { ...hours.value, [day]: changed } as Schemas['WeekHours']
}
function add(day: DayCode) {
  const last = ranges(day).at(-1)
  put(day, [...ranges(day), last ? [last[1]!, '18:00'] : ['08:00', '16:00']])
}
function set(day: DayCode, i: number, end: 0 | 1, value: string) {
  put(
    day,
    ranges(day).map((range, j) => (i === j ? range.map((text, k) => (k === end ? value : text)) : range)),
  )
}
const swap = (day: DayCode, i: number) =>
  put(
    day,
    ranges(day).map((range, j) => (i === j ? [...range].reverse() : range)),
  )
const drop = (day: DayCode, i: number) =>
  put(
    day,
    ranges(day).filter((_, j) => j !== i),
  )
const faultsOf = (day: DayCode) => [
  ...new Set([at(day), ...ranges(day).map((_, i) => at(`${day}/${i}`))].filter(Boolean)),
]
const nextDay = (day: DayCode) => DAYS[(DAYS.findIndex(({ code }) => code === day) + 1) % 7]!.name
</script>

<template>
  <ul class="ruled week">
    <li v-for="{ code: day, name } in DAYS" :key="day">
      <span class="name">{{ name }}</span>
      <span v-if="readonly">{{
        ranges(day)
          .map(range => range.join('–'))
          .join(', ') || 'off'
      }}</span>
      <span v-else class="ranges">
        <span v-for="(range, i) in ranges(day)" :key="i" class="range">
          <TimeField
            :model-value="range[0]!"
            :label="`${name}, from`"
            class="time"
            @update:model-value="value => set(day, i, 0, value)"
          />
          <TimeField
            :model-value="range[1]!"
            :label="`${name}, to`"
            class="time"
            @update:model-value="value => set(day, i, 1, value)"
          />
          <button type="button" class="quiet small" :aria-label="`Remove: ${name} ${range[0]}`" @click="drop(day, i)">
            Remove
          </button>
          <span v-if="asks(day, range)" class="small carried ask" role="alert"
            >Past midnight, to {{ range[1] }} on {{ nextDay(day) }}?
            <button type="button" class="quiet" @click="settle(day, range)">Yes, overnight</button
            ><button type="button" class="quiet" @click="swap(day, i)">No, swap them</button></span
          >
          <span v-else-if="isOvernight(range)" class="small soft">to {{ nextDay(day) }}</span>
        </span>
        <span v-if="ranges(day).length === 0" class="soft">off</span>
        <button type="button" class="quiet small" :aria-label="`Add hours on ${name}`" @click="add(day)">
          Add hours
        </button>
      </span>
      <p v-for="fault in faultsOf(day)" :key="fault" class="small alarm" role="alert">{{ fault }}</p>
    </li>
  </ul>
</template>

<style scoped>
.week li {
  display: grid;
  grid-template-columns: 92px 1fr;
  padding: 6px 0;
  align-items: center;
}
.week p {
  grid-column: 2;
}
.ranges {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}
.range {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.time {
  width: 86px;
}
.time :deep(.v-field__input) {
  min-height: 32px;
  padding-top: 4px;
  padding-bottom: 4px;
}
.time :deep(.v-label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.ask {
  flex-basis: 100%;
}
@media (max-width: 500px) {
  .week li {
    grid-template-columns: 1fr;
  }
  .week p {
    grid-column: 1;
  }
}
</style>
