<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '../api/client'
import { columnDay, count, list } from '../time'

/** The line of meetings, and under it one strand per action: it leaves where the action was raised, thickens with each
    meeting it passes, and comes back with a tick where it was closed. The same facts stand below as text. */
const { strands } = defineProps<{ strands: Schemas['Strands'] }>()
const router = useRouter()

const LABEL = 250
const STEP = 57
const ROW = 34
const TOP = 54
const WORDS = { planned: 'to come', in_session: 'in session', closed: 'held', issued: 'held', called_off: 'called off' }

const x = (column: number) => LABEL + 40 + column * STEP
const y = (row: number) => TOP + 26 + row * ROW
const width = computed(() => x(strands.columns.length - 1) + 60)
const height = computed(() => y(Math.max(strands.rows.length, 1)) - 4)
const isGone = (state: string) => ['closed', 'issued', 'in_session'].includes(state)
const lastGone = computed(() => strands.columns.findLastIndex(column => isGone(column.state)))

const rows = computed(() =>
  strands.rows.map((row, i) => {
    const open = row.action.state === 'open'
    const from = row.from === null ? LABEL + 6 : x(row.from)
    const bend = row.from === null ? from : from + 10
    return {
      ...row,
      open,
      from,
      y: y(i),
      bend,
      to: Math.max(x(row.to), bend + 4),
      width: open ? 2 + row.thickness * 1.4 : 2,
      tone: !open
        ? 'var(--closed)'
        : row.action.stuck
          ? 'var(--alarm)'
          : row.action.carried > 0
            ? 'var(--carried)'
            : 'var(--fresh)',
      age: row.action.carried === 0 ? 'new' : String(row.action.carried),
      ink: row.action.stuck ? 'alarm' : row.action.carried > 0 ? 'carried' : 'fresh',
      owners: list(row.action.owners.map(owner => owner.name)) || 'nobody yet',
    }
  }),
)
function facts({ action, owners, open }: (typeof rows.value)[number]) {
  const age = action.carried ? `carried ${count(action.carried, 'time')}` : 'new'
  const state = open
    ? `open, ${age}${action.stuck ? ', stuck' : ''}`
    : `${action.state}, after ${count(action.carried, 'meeting')}`
  return `${action.text}, ${owners}: ${state}`
}
// Where an action was raised.
const raised = ({ raisedAtMeetingId, lineId }: (typeof rows.value)[number]['action']) =>
  raisedAtMeetingId ? `/meetings/${raisedAtMeetingId}${lineId ? `#line-${lineId}` : ''}` : '/actions?whose=all'
// On a narrow screen the picture begins where things stand now.
const box = useTemplateRef<HTMLElement>('box')
onMounted(() => {
  const now = strands.nextColumn ?? lastGone.value
  if (box.value && now >= 0) box.value.scrollLeft = x(now) + 2 * STEP - box.value.clientWidth
})
const shorten = (text: string) => (text.length > 35 ? `${text.slice(0, 34).trimEnd()}…` : text)
</script>

<template>
  <div
    ref="box"
    class="scroll"
    tabindex="0"
    role="region"
    aria-label="Strands: what carries over from meeting to meeting"
  >
    <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
      <rect
        v-if="strands.nextColumn !== null"
        class="next"
        :x="x(strands.nextColumn) - STEP / 2"
        y="0"
        :width="STEP"
        :height="height"
      />
      <g v-for="(column, i) in strands.columns" :key="column.id">
        <line class="rule" :x1="x(i)" :x2="x(i)" y1="56" :y2="height" />
        <text :x="x(i)" y="18" class="date" :class="{ now: i === strands.nextColumn }">{{ columnDay(column.on) }}</text>
      </g>
      <line v-if="lastGone >= 0" class="spine" :x1="x(0) - 24" :x2="x(lastGone) + STEP / 2" y1="40" y2="40" />
      <line
        class="spine coming"
        :x1="lastGone >= 0 ? x(lastGone) + STEP / 2 : x(0) - 24"
        :x2="x(strands.columns.length - 1) + 24"
        y1="40"
        y2="40"
      />
      <g v-for="row in rows" :key="row.action.id">
        <path
          v-if="row.from !== row.bend"
          :d="`M${row.from} 47V${row.y - 8}Q${row.from} ${row.y} ${row.bend} ${row.y}`"
          fill="none"
          :stroke="row.tone"
          :stroke-width="row.open ? 1.5 : 1.5"
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
        <text x="0" :y="row.y - 3" class="what" :class="{ over: !row.open }" @click="router.push(raised(row.action))">
          {{ shorten(row.action.text) }}
          <title>{{ row.action.text }}</title>
        </text>
        <text x="0" :y="row.y + 11" class="who">{{ row.owners }}</text>
      </g>
      <g
        v-for="(column, i) in strands.columns"
        :key="`dot-${column.id}`"
        class="dot"
        @click="router.push(`/meetings/${column.id}`)"
      >
        <circle :cx="x(i)" cy="40" r="14" fill="transparent" />
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
    <p v-if="rows.length === 0" class="soft none">
      No action has been raised yet. Type a line such as “Ines to order shackles by Friday” on a sheet.
    </p>
    <div class="visually-hidden">
      <h3>Meetings</h3>
      <ul>
        <li v-for="column in strands.columns" :key="column.id">
          <router-link :to="`/meetings/${column.id}`"
            >{{ columnDay(column.on) }}, {{ WORDS[column.state] }}</router-link
          >
        </li>
      </ul>
      <h3>Actions</h3>
      <ul>
        <li v-for="row in rows" :key="row.action.id">
          <router-link :to="raised(row.action)">{{ facts(row) }}</router-link>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  position: relative;
}
svg {
  display: block;
  font-family: 'Figtree Variable', sans-serif;
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
.what {
  cursor: pointer;
  font-size: 0.9286rem;
  font-weight: 600;
  fill: var(--ink);
}
.what.over {
  font-weight: 400;
  fill: var(--soft);
}
.who {
  font-size: 0.8214rem;
  fill: var(--soft);
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
.none {
  padding: 6px 0 14px;
}
</style>
