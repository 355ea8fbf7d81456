<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '../api/client'
import { columnDay, count, list } from '../time'

/** The line of meetings, and under it one strand per action: it leaves where the action was raised, thickens with each
    meeting it passes, and comes back with a tick where it was closed. Names and dates stay in sight while one scrolls;
    the more meetings there are, the closer they stand. */
const { strands, of = '' } = defineProps<{ strands: Schemas['Strands']; of?: string }>()
const router = useRouter()

const ROW = 34
const HEAD = 54
const WORDS = { planned: 'to come', in_session: 'in session', closed: 'held', issued: 'held', called_off: 'called off' }

const columns = computed(() => strands.columns.length)
const step = computed(() => (columns.value <= 16 ? 57 : columns.value <= 34 ? 34 : columns.value <= 64 ? 22 : 14))
/** Of dates that would touch only some are written. */
const everyDate = computed(() => Math.ceil(52 / step.value))
const x = (column: number) => 36 + column * step.value
const y = (row: number) => 20 + row * ROW
const width = computed(() => x(columns.value - 1) + 64)
const height = computed(() => y(strands.rows.length) - 14)
const isGone = (state: string) => ['closed', 'issued', 'in_session'].includes(state)
const lastGone = computed(() => strands.columns.findLastIndex(column => isGone(column.state)))

type Action = Schemas['Strands']['rows'][number]['action']
const tone = (action: Action) => (action.stuck ? 'alarm' : action.carried > 0 ? 'carried' : 'fresh')
const rows = computed(() =>
  strands.rows.map((row, i) => {
    const open = row.action.state === 'open'
    const from = row.from === null ? 2 : x(row.from)
    const bend = row.from === null ? from : from + Math.min(10, step.value / 2)
    return {
      ...row,
      open,
      from,
      bend,
      y: y(i),
      to: Math.max(x(row.to), bend + 4),
      width: open ? 2 + row.thickness * 1.4 : 2,
      tone: open ? `var(--${tone(row.action)})` : 'var(--closed)',
      ink: tone(row.action),
      age: row.action.carried === 0 ? 'new' : String(row.action.carried),
      owners: list(row.action.owners.map(owner => owner.name)) || 'nobody yet',
    }
  }),
)
/** Where strands leave the line, in the colour of the first that does. */
const leaves = computed(() => rows.value.filter((row, i) => rows.value.findIndex(one => one.from === row.from) === i))
function facts({ action, owners, open }: (typeof rows.value)[number]) {
  const age = action.carried ? `carried ${count(action.carried, 'time')}` : 'new'
  const state = open
    ? `open, ${age}${action.stuck ? ', stuck' : ''}`
    : `${action.state.replace('_', ' ')}, after ${count(action.carried, 'meeting')}`
  return `${action.text}, ${owners}: ${state}`
}
/** Where an action was raised. */
const raised = ({ raisedAtMeetingId, lineId }: Action) =>
  raisedAtMeetingId ? `/meetings/${raisedAtMeetingId}${lineId ? `#line-${lineId}` : ''}` : '/actions?whose=all'
// The picture begins where things stand now.
const box = useTemplateRef<HTMLElement>('box')
const names = useTemplateRef<HTMLElement>('names')
onMounted(() => {
  const now = strands.nextColumn ?? lastGone.value
  if (!box.value || now < 0) return
  box.value.scrollLeft = x(now) + 1.2 * step.value - (box.value.clientWidth - (names.value?.clientWidth ?? 0))
})
</script>

<template>
  <div
    ref="box"
    class="scroll"
    tabindex="0"
    role="region"
    :aria-label="`Strands${of && ` of ${of}`}: what carries over from meeting to meeting`"
  >
    <div class="plane">
      <div class="corner" />
      <svg class="top" :width="width" :height="HEAD" aria-hidden="true">
        <rect
          v-if="strands.nextColumn !== null"
          class="next"
          :x="x(strands.nextColumn) - step / 2"
          y="0"
          :width="step"
          :height="HEAD"
        />
        <template v-for="(column, i) in strands.columns" :key="column.id">
          <text
            v-if="
              i === strands.nextColumn ||
              (i % everyDate === 0 && Math.abs(i - (strands.nextColumn ?? -99)) >= everyDate)
            "
            :x="x(i)"
            y="18"
            class="date"
            :class="{ now: i === strands.nextColumn }"
          >
            {{ columnDay(column.on) }}
          </text>
        </template>
        <line v-if="lastGone >= 0" class="spine" :x1="x(0) - 24" :x2="x(lastGone) + step / 2" y1="40" y2="40" />
        <line
          class="spine coming"
          :x1="lastGone >= 0 ? x(lastGone) + step / 2 : x(0) - 24"
          :x2="x(columns - 1) + 24"
          y1="40"
          y2="40"
        />
        <template v-for="row in leaves" :key="row.action.id">
          <line v-if="row.from !== row.bend" :x1="row.from" :x2="row.from" y1="47" :y2="HEAD" :stroke="row.tone" />
        </template>
        <g
          v-for="(column, i) in strands.columns"
          :key="`dot-${column.id}`"
          class="dot"
          @click="router.push(`/meetings/${column.id}`)"
        >
          <circle :cx="x(i)" cy="40" :r="Math.min(14, step / 2)" fill="transparent" />
          <circle
            :cx="x(i)"
            cy="40"
            r="5.5"
            :class="isGone(column.state) ? 'held' : column.state === 'called_off' ? 'off' : 'open'"
          />
          <path v-if="column.state === 'called_off'" :d="`M${x(i) - 3} 37l6 6M${x(i) + 3} 37l-6 6`" class="cross" />
          <title>{{ columnDay(column.on) }}: {{ WORDS[column.state] }}</title>
        </g>
      </svg>
      <ol ref="names" class="names">
        <li v-for="row in rows" :key="row.action.id">
          <router-link :to="raised(row.action)" :title="row.action.text" class="to" :class="{ over: !row.open }">
            <span class="visually-hidden">{{ facts(row) }}</span>
            <b aria-hidden="true">{{ row.action.text }}</b>
            <span aria-hidden="true" class="soft">{{ row.owners }}</span>
          </router-link>
        </li>
      </ol>
      <svg v-if="rows.length" :width="width" :height="height" aria-hidden="true">
        <rect
          v-if="strands.nextColumn !== null"
          class="next"
          :x="x(strands.nextColumn) - step / 2"
          y="0"
          :width="step"
          :height="height"
        />
        <line v-for="(column, i) in strands.columns" :key="column.id" class="rule" :x1="x(i)" :x2="x(i)" :y2="height" />
        <g v-for="row in rows" :key="row.action.id">
          <path
            v-if="row.from !== row.bend"
            :d="`M${row.from} 0V${row.y - 8}Q${row.from} ${row.y} ${row.bend} ${row.y}`"
            fill="none"
            :stroke="row.tone"
            stroke-width="1.5"
          />
          <line
            :x1="row.bend"
            :x2="row.open ? row.to - 8 : row.to - 6"
            :y1="row.y"
            :y2="row.y"
            :stroke="row.tone"
            :stroke-width="row.width"
            stroke-linecap="round"
          />
          <path v-if="row.open" :d="`M${row.to - 9} ${row.y - 5}l8 5l-8 5z`" :fill="row.tone" />
          <g v-else :transform="`translate(${row.to} ${row.y})`">
            <circle r="6" class="end" />
            <path v-if="row.action.state === 'done'" d="M-2.6 0l2 2.2l3.4-4" class="tick" />
            <path v-else d="M-2.4 -2.4l4.8 4.8M2.4 -2.4l-4.8 4.8" class="tick" />
          </g>
          <text v-if="row.open" :x="row.to + 13" :y="row.y + 4" class="age" :class="row.ink">{{ row.age }}</text>
        </g>
      </svg>
    </div>
    <div class="visually-hidden">
      <h3>Meetings</h3>
      <ul>
        <li v-for="column in strands.columns" :key="column.id">
          <router-link :to="`/meetings/${column.id}`"
            >{{ columnDay(column.on) }}, {{ WORDS[column.state] }}</router-link
          >
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.scroll {
  position: relative;
  overflow: auto;
  max-height: max(320px, 72vh);
}
.plane {
  display: grid;
  grid-template-columns: max-content max-content;
  width: max-content;
}
svg {
  display: block;
  font-family: 'Figtree Variable', sans-serif;
}
.top {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--sheet);
}
.names,
.corner {
  position: sticky;
  left: 0;
  z-index: 1;
  margin: 0;
  padding: 0 10px 0 0;
  background: var(--sheet);
  list-style: none;
}
.corner {
  top: 0;
  z-index: 2;
}
/* As wide as the names are, and never most of a narrow screen. */
.names {
  max-width: min(40vw, 330px);
}
.names li {
  height: 34px;
  padding-top: 4px;
}
.names .to {
  display: block;
  line-height: 1.15;
  color: var(--ink);
  text-decoration: none;
}
.names .to:hover b {
  text-decoration: underline;
}
.names b,
.names span {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  overflow-wrap: normal;
}
.names b {
  font-size: 0.9286rem;
  font-weight: 600;
}
.names span {
  font-size: 0.8214rem;
}
.names .over b {
  font-weight: 400;
  color: var(--soft);
}
.next {
  fill: var(--gold-pale);
}
.rule {
  stroke: var(--line);
}
.date {
  font-size: 0.8214rem;
  text-anchor: middle;
  fill: var(--soft);
}
.date.now {
  font-weight: 700;
  fill: var(--ink);
}
.spine {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.coming {
  stroke-dasharray: 2 4;
}
.held {
  fill: var(--pine);
  stroke: var(--pine);
  stroke-width: 1.5;
}
.open {
  fill: var(--sheet);
  stroke: var(--pine);
  stroke-width: 2.2;
}
.off {
  fill: var(--sheet);
  stroke: var(--soft);
  stroke-width: 1.5;
}
.cross {
  stroke: var(--soft);
  stroke-width: 1.4;
}
.dot {
  cursor: pointer;
}
.end {
  fill: var(--sheet);
  stroke: var(--closed);
  stroke-width: 2;
}
.tick {
  fill: none;
  stroke: var(--fresh-ink);
  stroke-width: 1.7;
}
.age {
  font-size: 0.8571rem;
  font-weight: 700;
}
.age.alarm {
  fill: var(--alarm-ink);
}
.age.carried {
  fill: var(--carried-ink);
}
.age.fresh {
  fill: var(--fresh-ink);
}
</style>
