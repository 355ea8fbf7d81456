<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import type { Fit } from '../composables/useCommonTime'
import { clock, count, shortDay } from '../time'

/**
 * A column a day, a bar for each half hour in which a meeting of the wanted length may begin, whose length is the
 * number of people free for all of it: solid where all who must come are, gold where one is missing. Arrow keys move,
 * Enter takes the time. Times that are marked can be drawn to another.
 */
const {
  found,
  chosen = undefined,
  marked = [],
} = defineProps<{
  found: Schemas['CommonTime']
  chosen?: Fit | undefined
  marked?: { id: string; localStart: string; lengthMin: number }[]
}>()
const emit = defineEmits<{ take: [startsAt: string]; move: [id: string, startsAt: string] }>()

const names = computed(() => new Map(found.people.map(person => [person.id, person.name])))
const minuteOf = (wall: string) => Number(wall.slice(11, 13)) * 60 + Number(wall.slice(14, 16))
const all = computed(() => found.days.flatMap(day => day.bars))
const first = computed(() => Math.min(...all.value.map(bar => slotOf(bar.localStart)), 24 * 60))
const last = computed(() => Math.max(...all.value.map(bar => slotOf(bar.localStart) + 30), 0))
const ROW = 19
/** A bar stands in the half hour in which it begins. */
const slotOf = (wall: string) => Math.floor(minuteOf(wall) / 30) * 30
const rowOf = (minute: number) => ((minute - first.value) / 30) * ROW
const hours = computed(() =>
  Array.from(
    { length: Math.max(Math.floor(last.value / 60) - Math.ceil(first.value / 60) + 1, 0) },
    (_, i) => (Math.ceil(first.value / 60) + i) * 60,
  ),
)
const kind = (bar: Schemas['Bar']) =>
  bar.missing === 0 && bar.holds ? 'all' : bar.missing === 0 ? 'likely' : bar.missing === 1 ? 'one' : 'some'
function required(bar: Schemas['Bar']) {
  if (bar.holds) return 'all who must come'
  if (bar.missing === 0) return 'all who must come as far as known'
  return bar.missing === 1
    ? `${names.value.get(bar.onlyMissing!)} away`
    : `${count(bar.missing, 'person')} who must come away`
}
const label = (bar: Schemas['Bar']) =>
  `${shortDay(bar.localStart)} ${clock(bar.localStart)}: ${bar.free} of ${found.people.length} free, ${required(bar)}`
const frame = computed(
  () =>
    chosen && {
      day: chosen.localStart.slice(0, 10),
      top: rowOf(minuteOf(chosen.localStart)),
      height: ((minuteOf(chosen.localEnd) - minuteOf(chosen.localStart) || 30) / 30) * ROW,
    },
)

// A mark is drawn to another bar with the mouse; from the keyboard it is moved in its list.
const drawn = ref('')
function drop(day: number, bar: number) {
  if (drawn.value) emit('move', drawn.value, found.days[day]!.bars[bar]!.startsAt)
  drawn.value = ''
}
const marksOn = (day: string) =>
  marked
    .filter(one => one.localStart.slice(0, 10) === day)
    .map(one => ({
      id: one.id,
      words: clock(one.localStart),
      top: `${rowOf(minuteOf(one.localStart)) - 2}px`,
      height: `${(one.lengthMin / 30) * ROW + 3}px`,
    }))

// One stop for Tab; within, the arrows move.
const at = ref({ day: 0, bar: 0 })
function take(day: number, bar: number) {
  at.value = { day, bar }
  emit('take', found.days[day]!.bars[bar]!.startsAt)
}
const picture = ref<HTMLElement>()
function move(days: number, bars: number) {
  const shown = found.days
  const day = Math.min(Math.max(at.value.day + days, 0), shown.length - 1)
  at.value = { day, bar: Math.min(Math.max(at.value.bar + bars, 0), Math.max((shown[day]?.bars.length ?? 1) - 1, 0)) }
  // At once: a quick hand presses Enter before the picture has been drawn again.
  picture.value?.querySelectorAll('.day')[day]?.querySelectorAll<HTMLElement>('.bar')[at.value.bar]?.focus()
}
</script>

<template>
  <div
    ref="picture"
    class="picture"
    role="group"
    aria-label="When people are free: arrow keys move, Enter takes the time"
    @keydown.left.prevent="move(-1, 0)"
    @keydown.right.prevent="move(1, 0)"
    @keydown.up.prevent="move(0, -1)"
    @keydown.down.prevent="move(0, 1)"
  >
    <div class="hours" aria-hidden="true" :style="{ height: `${rowOf(last) + 8}px` }">
      <span v-for="hour in hours" :key="hour" :style="{ top: `${rowOf(hour)}px` }">{{
        String(hour / 60).padStart(2, '0')
      }}</span>
    </div>
    <div v-for="(day, d) in found.days" :key="day.on" class="day">
      <h3>{{ shortDay(day.on) }}</h3>
      <div class="bars" :style="{ height: `${rowOf(last)}px` }">
        <i v-for="hour in hours" :key="hour" class="rule" :style="{ top: `${rowOf(hour)}px` }" />
        <button
          v-for="(bar, b) in day.bars"
          :key="bar.startsAt"
          type="button"
          :class="['bar', kind(bar)]"
          :tabindex="d === at.day && b === at.bar ? 0 : -1"
          :aria-label="label(bar)"
          :title="label(bar)"
          :style="{ top: `${rowOf(slotOf(bar.localStart))}px`, height: `${ROW - 1}px` }"
          @click="take(d, b)"
          @dragover.prevent
          @drop.prevent="drop(d, b)"
        >
          <i :style="{ width: `${(100 * bar.free) / Math.max(found.people.length, 1)}%` }" />
        </button>
        <span
          v-for="mark in marksOn(day.on)"
          :key="mark.id"
          class="mark"
          draggable="true"
          :style="{ top: mark.top, height: mark.height }"
          :class="{ drawn: drawn }"
          @dragstart="drawn = mark.id"
          @dragend="drawn = ''"
          >{{ mark.words }}</span
        >
        <i
          v-if="frame?.day === day.on"
          class="frame"
          :style="{ top: `${frame.top - 2}px`, height: `${frame.height + 3}px` }"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.picture {
  display: flex;
  gap: 12px;
  overflow-x: auto;
  padding: 4px 6px 14px 0;
}
.hours {
  position: relative;
  flex: 0 0 26px;
  margin-top: 26px;
  font-size: 0.8214rem;
  color: var(--soft);
}
.hours span {
  position: absolute;
  right: 0;
  transform: translateY(-50%);
}
.day {
  flex: 1 0 92px;
  min-width: 92px;
}
.day h3 {
  font:
    650 0.8929rem 'Figtree Variable',
    sans-serif;
  height: 22px;
  letter-spacing: 0;
  white-space: nowrap;
}
.bars {
  position: relative;
  border-left: 2px solid var(--soft);
  margin-top: 4px;
}
.rule {
  position: absolute;
  left: 0;
  right: 0;
  border-top: 1px solid var(--line);
}
.bar {
  position: absolute;
  left: 0;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
  text-align: left;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--line);
}
.bar:hover i {
  outline: 1.5px solid var(--soft);
}
.bar.one i {
  background: var(--gold);
}
.bar.all i {
  background: var(--pine);
}
.bar.likely i {
  background: repeating-linear-gradient(135deg, var(--pine) 0 4px, var(--pine-pale) 4px 8px);
}
.mark {
  position: absolute;
  left: 30%;
  right: -3px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--gold-pale);
  padding: 0 4px;
  font-size: 0.7857rem;
  font-weight: 650;
  cursor: grab;
}
/* While one is drawn, none stands in the way of the bars. */
.mark.drawn {
  pointer-events: none;
  opacity: 0.7;
}
.frame {
  position: absolute;
  left: -3px;
  right: -3px;
  border: 2px solid var(--alarm);
  border-radius: 3px;
  pointer-events: none;
}
</style>
