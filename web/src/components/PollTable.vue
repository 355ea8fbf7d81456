<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { clock, shortDay } from '../time'

/** People by times; an answer can be entered for somebody here. */
type Answer = Schemas['GivenAnswer']['answer']
const { poll, mayEnter } = defineProps<{ poll: Schemas['TimePoll']; mayEnter: boolean }>()
const emit = defineEmits<{ enter: [personId: string, candidateId: string, answer: Answer] }>()
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
const CHOICES = [
  { value: 'none', title: '–' },
  { value: 'suits', title: 'suits' },
  { value: 'possible', title: 'possible' },
  { value: 'cannot', title: 'cannot' },
]
const STATES = { free: '', tentative: 'perhaps busy', busy: 'busy', outside: 'outside hours', unknown: '' }
const times = computed(() => [...poll.candidates].sort((a, b) => (a.startsAt < b.startsAt ? -1 : 1)))
function answerOf(time: Schemas['PolledTime'], id: string): Answer {
  return (['suits', 'possible', 'cannot'] as const).find(word => time[word].includes(id)) ?? 'none'
}
const calendar = (time: Schemas['PolledTime'], id: string) =>
  STATES[time.calendars.find(one => one.personId === id)?.state ?? 'unknown']
function chosen(event: Event) {
  return (event.target as HTMLSelectElement).value as Answer
}
</script>

<template>
  <div class="scrolled" tabindex="0" role="region" aria-label="People by times">
    <table>
      <thead>
        <tr>
          <th scope="col">Who</th>
          <th v-for="time in times" :key="time.id" scope="col">
            {{ shortDay(time.localStart) }}<br />{{ clock(time.localStart) }}
            <span v-if="time.best" class="fresh">best</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in poll.people" :key="person.id">
          <th scope="row">
            {{ person.name }}
            <span class="soft small">{{ ROLES[person.role] }}{{ person.way === 'shared' ? ', shared link' : '' }}</span>
            <span v-if="person.comment" class="small comment">“{{ person.comment }}”</span>
          </th>
          <td v-for="time in times" :key="time.id" :class="answerOf(time, person.id)">
            <select
              v-if="mayEnter"
              :value="answerOf(time, person.id)"
              :aria-label="`${person.name}, ${shortDay(time.localStart)} ${clock(time.localStart)}`"
              @change="emit('enter', person.id, time.id, chosen($event))"
            >
              <option v-for="one in CHOICES" :key="one.value" :value="one.value">{{ one.title }}</option>
            </select>
            <template v-else>{{ answerOf(time, person.id) === 'none' ? '–' : answerOf(time, person.id) }}</template>
            <span v-if="calendar(time, person.id)" class="small soft">{{ calendar(time, person.id) }}</span>
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <th scope="row">Suits / possible / cannot</th>
          <td v-for="time in times" :key="time.id" class="strong">
            {{ time.suits.length }} / {{ time.possible.length }} / {{ time.cannot.length }}
          </td>
        </tr>
      </tfoot>
    </table>
  </div>
</template>

<style scoped>
.scrolled {
  overflow-x: auto;
  padding: 8px 16px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  font-weight: 500;
  padding: 7px 10px;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
thead th {
  font-weight: 650;
  white-space: nowrap;
}
tbody th {
  position: sticky;
  left: 0;
  background: var(--sheet);
  min-width: 130px;
}
tbody th .small,
td .small {
  display: block;
}
.comment {
  max-width: 220px;
}
td.suits {
  background: var(--pine-pale);
}
td.possible {
  background: var(--gold-pale);
}
td.cannot {
  background: repeating-linear-gradient(135deg, rgb(191 68 38 / 14%) 0 6px, transparent 6px 12px);
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 3px 4px;
}
</style>
