<script setup lang="ts">
import { computed } from 'vue'
import type { RunTime } from '../composables/useCommonTime'
import { clock, columnDay, count, list, shortDay, weekday } from '../time'

/**
 * A row for each time, a dot for each date of the run: filled where it holds, hollow where it fails, with who and when
 * in words.
 */
const { runs, chosen, zoneCity } = defineProps<{ runs: RunTime[]; chosen: RunTime | undefined; zoneCity: string }>()
defineEmits<{ choose: [run: RunTime] }>()

/** The month is said where it begins, else the day alone. */
const dates = computed(() =>
  (runs[0]?.dates ?? []).map((date, i, all) => ({
    key: date.localStart,
    text:
      i === 0 || all[i - 1]!.localStart.slice(5, 7) !== date.localStart.slice(5, 7)
        ? columnDay(date.localStart)
        : String(Number(date.localStart.slice(8, 10))),
  })),
)
const facts = (run: RunTime) =>
  run.why.length === 0
    ? `all ${run.dates.length}`
    : `${run.held} · ${run.why[0]}${run.why.length > 1 ? `, ${run.why.length - 1} more` : ''}`
const name = (run: RunTime) => {
  const at = `${weekday(run.localStart).slice(0, 3)} ${clock(run.localStart)}`
  // Every second week may be this one or the next.
  return run.rule.includes('INTERVAL=') ? `${at} from ${columnDay(run.localStart)}` : at
}
</script>

<template>
  <div class="scroll">
    <table>
      <caption class="visually-hidden">
        How each time holds across the run, in
        {{
          zoneCity
        }}
        time
      </caption>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Time</span></th>
          <th v-for="date in dates" :key="date.key" scope="col" class="date">{{ date.text }}</th>
          <th scope="col"><span class="visually-hidden">Holds</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="run in runs" :key="run.rule + run.localStart" :class="{ chosen: run === chosen }">
          <th scope="row">
            <button type="button" class="quiet" :aria-pressed="run === chosen" @click="$emit('choose', run)">
              {{ name(run) }}
            </button>
          </th>
          <td
            v-for="date in run.dates"
            :key="date.startsAt"
            class="dot"
            :title="`${shortDay(date.localStart)}: ${date.held ? 'holds' : date.headline}`"
          >
            <i :class="date.held ? 'held' : 'fails'" /><span class="visually-hidden">{{
              date.held ? 'holds' : `fails: ${list(date.missing)}`
            }}</span>
          </td>
          <td class="small why" :class="run.why.length ? 'soft' : 'strong fresh'">{{ facts(run) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="chosen?.clocks.length" class="small carried clocks">
      <template v-for="other in chosen.clocks" :key="other.zoneCity"
        >In {{ other.zoneCity }} {{ clock(chosen.localStart) }} is {{ other.usual }}, but
        {{ other.other.map(one => `${one.clock} on ${list(one.on.map(columnDay))}`).join(', ') }}: the clocks change on
        different dates.
      </template>
    </p>
    <p class="visually-hidden">{{ count(runs.length, 'time') }} shown.</p>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  font-weight: 600;
  text-align: left;
  white-space: nowrap;
}
.date {
  font-size: 0.8214rem;
  font-weight: 400;
  color: var(--soft);
  text-align: center;
  padding: 0 2px;
  min-width: 22px;
}
.dot {
  text-align: center;
  padding: 0;
  position: relative;
}
.dot::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 50%;
  border-top: 1px solid var(--line);
}
.dot i {
  position: relative;
  display: inline-block;
  width: 12px;
  height: 12px;
  border-radius: 50%;
  vertical-align: middle;
}
.held {
  background: var(--pine);
}
.fails {
  background: var(--sheet);
  border: 2.5px solid var(--alarm);
}
.why {
  padding-left: 10px;
  min-width: 130px;
  line-height: 1.3;
}
tr.chosen {
  background: var(--pine-pale);
}
.clocks {
  margin-top: 8px;
}
</style>
