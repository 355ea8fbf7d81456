<script setup lang="ts">
import { computed } from 'vue'
import PairBars from './PairBars.vue'
import type { Schemas } from '../api/client'
import { columnDay, count } from '../time'

/** How the series has done over its last meetings: in words, as small plots, and as a table. */
const { figures } = defineProps<{ figures: Schemas['Figures'] }>()

const half = (number: number) => number.toLocaleString('en-GB', { maximumFractionDigits: 1 })
const counted = (number: number, one: string) => `${half(number)} ${number === 1 ? one : `${one}s`}`
const sentences = computed(() => {
  const { meetings, raised, closed, open, meetingsToClose, daysToClose, withDate, inTime, personHours } = figures
  const each = (minutes: number) => half(minutes / meetings)
  const time =
    `${each(figures.usedMin)} minutes a meeting were used of ${each(figures.plannedMin)} planned; ` +
    `${half(personHours)} hours of people’s time in all.`
  if (!closed) return [`${count(raised, 'action')} raised, none closed yet.`, time]
  const taken = `${counted(meetingsToClose!, 'meeting')} and ${counted(daysToClose!, 'day')}`
  return [
    `${count(raised, 'action')} raised, ${closed} closed, ${open} open now.`,
    `To close one took ${taken}, at the median.`,
    withDate ? `Of ${withDate} done that had a date, ${inTime} ${inTime === 1 ? 'was' : 'were'} done by it.` : '',
    time,
  ]
})
const days = computed(() => figures.byMeeting.map(one => columnDay(one.on)))
const column = (name: 'raised' | 'closed' | 'open' | 'plannedMin' | 'usedMin') =>
  figures.byMeeting.map(one => one[name])
</script>

<template>
  <section class="figures" aria-labelledby="figures">
    <h3 id="figures">The last {{ count(figures.meetings, 'meeting') }}</h3>
    <p>{{ sentences.join(' ') }}</p>
    <div class="plots">
      <PairBars
        title="Actions raised"
        :first="column('raised')"
        beside="closed"
        :second="column('closed')"
        :days="days"
      />
      <PairBars title="Open after each" :first="column('open')" :days="days" />
      <PairBars
        title="Minutes planned"
        :first="column('plannedMin')"
        beside="used"
        :second="column('usedMin')"
        :days="days"
      />
    </div>
    <details>
      <summary class="small">As a table</summary>
      <div class="wide" tabindex="0" role="region" aria-label="Figures by meeting">
        <table>
          <thead>
            <tr>
              <th scope="col">Meeting</th>
              <th v-for="name in ['raised', 'closed', 'open after', 'min planned', 'min used']" :key="name" scope="col">
                {{ name }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in figures.byMeeting" :key="one.id">
              <th scope="row">
                <router-link :to="`/meetings/${one.id}`">{{ columnDay(one.on) }}</router-link>
              </th>
              <td>{{ one.raised }}</td>
              <td>{{ one.closed }}</td>
              <td>{{ one.open }}</td>
              <td>{{ one.plannedMin }}</td>
              <td>{{ one.usedMin }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </section>
</template>

<style scoped>
.figures {
  margin-top: 18px;
  padding-top: 14px;
  border-top: 1px solid var(--line);
}
.figures > p {
  max-width: 78ch;
  margin: 4px 0 10px;
}
.plots {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px 28px;
}
details {
  margin-top: 8px;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
:is(th, td) {
  padding: 3px 14px 3px 0;
  text-align: right;
  font-weight: 400;
}
th:first-child {
  text-align: left;
}
thead th {
  color: var(--soft);
}
</style>
