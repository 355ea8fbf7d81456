<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { longDay } from '../time'

/**
 * A month at a glance: days on which something is free can be pressed. Arrow keys move by days and weeks, Page Up and
 * Page Down by months.
 */
const { month, free, firstMonth, lastMonth, busy } = defineProps<{
  month: string
  free: Map<string, number>
  firstMonth: string
  lastMonth: string
  busy: boolean
}>()
const day = defineModel<string>('day', { required: true })
const emit = defineEmits<{ month: [string] }>()
const NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const utc = (on: string) => new Date(`${on}T00:00Z`)
const addDays = (on: string, days: number) => new Date(utc(on).getTime() + days * 86_400_000).toISOString().slice(0, 10)
const addMonths = (of: string, months: number) => {
  const [year, number] = of.split('-').map(Number) as [number, number]
  return new Date(Date.UTC(year, number - 1 + months, 1)).toISOString().slice(0, 7)
}
const title = computed(() =>
  new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(utc(`${month}-01`)),
)
const weeks = computed(() => {
  const first = `${month}-01`
  const monday = addDays(first, -((utc(first).getUTCDay() + 6) % 7))
  return Array.from({ length: 6 }, (_, week) =>
    Array.from({ length: 7 }, (_, i) => addDays(monday, week * 7 + i)),
  ).filter(days => days.some(on => on.startsWith(month)))
})
const hasBefore = computed(() => month > firstMonth)
const hasAfter = computed(() => month < lastMonth)
const at = ref(day.value || `${month}-01`)
watch(
  () => [month, free] as const,
  () => {
    if (!at.value.startsWith(month)) at.value = [...free.keys()].sort()[0] ?? `${month}-01`
  },
)
const grid = useTemplateRef<HTMLElement>('grid')
const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }
async function key(event: KeyboardEvent) {
  const step = STEPS[event.key]
  if (step !== undefined) go(addDays(at.value, step))
  else if (event.key === 'PageDown' && hasAfter.value) emit('month', addMonths(month, 1))
  else if (event.key === 'PageUp' && hasBefore.value) emit('month', addMonths(month, -1))
  else return
  event.preventDefault()
}
async function go(on: string) {
  const of = on.slice(0, 7)
  if (of < firstMonth || of > lastMonth) return
  at.value = on
  if (of !== month) emit('month', of)
  await nextTick()
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
function words(on: string) {
  const times = free.get(on) ?? 0
  return `${longDay(on)}, ${times ? `${times} ${times === 1 ? 'time' : 'times'} free` : 'nothing free'}`
}
function press(on: string) {
  at.value = on
  if (free.get(on)) day.value = on
}
</script>

<template>
  <div>
    <div class="head">
      <button type="button" class="quiet" :disabled="!hasBefore" @click="emit('month', addMonths(month, -1))">
        <span aria-hidden="true">←</span> <span class="visually-hidden">The month before</span>
      </button>
      <h2 aria-live="polite">{{ title }}{{ busy ? ' …' : '' }}</h2>
      <button type="button" class="quiet" :disabled="!hasAfter" @click="emit('month', addMonths(month, 1))">
        <span class="visually-hidden">The next month</span> <span aria-hidden="true">→</span>
      </button>
    </div>
    <table ref="grid" role="grid" :aria-label="title" @keydown="key">
      <thead>
        <tr>
          <th v-for="name in NAMES" :key="name" scope="col" :abbr="name">{{ name.slice(0, 2) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="week in weeks" :key="week[0]">
          <td v-for="on in week" :key="on" role="gridcell" :aria-selected="on === day">
            <button
              v-if="on.startsWith(month)"
              type="button"
              :class="{ free: free.get(on), on: on === day }"
              :tabindex="on === at ? 0 : -1"
              :aria-disabled="!free.get(on)"
              :aria-label="words(on)"
              @click="press(on)"
            >
              {{ Number(on.slice(8)) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 6px;
}
.head .quiet:disabled {
  visibility: hidden;
}
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
th {
  font-size: 0.8125rem;
  font-weight: 600;
  color: var(--soft);
  padding: 4px 0;
}
td {
  padding: 2px;
}
td button {
  width: 100%;
  min-height: 40px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: none;
  font: inherit;
  color: var(--soft);
  cursor: default;
}
td button.free {
  background: var(--pine-pale);
  border-color: var(--pine);
  color: var(--ink);
  font-weight: 650;
  cursor: pointer;
}
td button.on {
  background: var(--pine);
  color: var(--on-pine);
}
</style>
