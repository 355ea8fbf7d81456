<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { shortName } from '../names'
import { clock, wallNow } from '../time'

/** A ruler of topics in their planned lengths: when each begins, what was used, what no longer fits. */
const { sheet } = defineProps<{ sheet: Sheet }>()
defineEmits<{ remedy: [Schemas['Sheet']['runningOrder']['remedies'][number]]; go: [id: string] }>()

const PX = 7.4
const order = computed(() => sheet.runningOrder)
const inSession = computed(() => sheet.state === 'in_session')
const now = computed(() => clock(wallNow(sheet.timeZone, new Date(sheet.now))))

const entries = computed(() => {
  const topics = sheet.topics
    .filter(topic => !topic.putOff || inSession.value)
    .map(topic => ({
      id: topic.id,
      title: topic.title,
      who: topic.presenter && shortName(topic.presenter.name, sheet.people),
      length: topic.lengthMin,
      slot: topic as Schemas['Slot'],
      present: topic.present,
      done: topic.taken && !topic.present,
      putOff: topic.putOff,
    }))
  const leftOver = order.value.leftOver
  if (leftOver)
    topics.unshift({
      id: 'left-over',
      title: 'Left over',
      who: null,
      length: sheet.leftOverMin,
      slot: leftOver,
      present: inSession.value && sheet.presentTopicId === null,
      done: inSession.value && sheet.presentTopicId !== null,
      putOff: false,
    })
  return topics.map((entry, i) => ({
    ...entry,
    number: i + 1,
    height: Math.max(entry.length * PX, 44),
    mark: entry.present ? `${Math.min(((entry.slot.usedMin ?? 0) / Math.max(entry.length, 1)) * 100, 100)}%` : null,
  }))
})
// Once it is over, what it took is said, and no more what was planned.
const tookMin = computed(() => {
  const { begunAt, closedAt } = sheet
  if (!begunAt || !closedAt) return null
  return Math.round((new Date(closedAt).getTime() - new Date(begunAt).getTime()) / 60_000)
})
const title = (id: string) => sheet.topics.find(topic => topic.id === id)?.title ?? 'the last topic'
const words = (remedy: Schemas['Sheet']['runningOrder']['remedies'][number]) =>
  remedy.kind === 'trim'
    ? `Trim “${title(remedy.topicIds[0]!)}” to ${remedy.toMin} min`
    : `Carry ${remedy.topicIds.map(id => `“${title(id)}”`).join(' and ')} over`
</script>

<template>
  <section aria-labelledby="order" class="order">
    <h2 id="order" class="eyebrow">Running order</h2>
    <ol>
      <li
        v-for="entry in entries"
        :key="entry.id"
        :class="{ present: entry.present, done: entry.done, unfit: !entry.slot.fits }"
        :style="{ minHeight: `${entry.height}px` }"
      >
        <span class="time small">{{ clock(entry.slot.localStart) }}</span>
        <span class="bar"><span v-if="entry.mark" class="now" :style="{ top: entry.mark }" /></span>
        <span class="what">
          <button type="button" class="title" @click="$emit('go', entry.id)">
            {{ entry.number }} {{ entry.title }}
          </button>
          <span class="small soft"
            ><template v-if="entry.who">{{ entry.who }} · </template
            >{{ entry.putOff ? 'put off' : `${entry.length} min`
            }}<template v-if="entry.slot.usedMin !== null && !entry.putOff">
              ·
              <span :class="{ 'alarm strong': entry.slot.overMin > 0 }"
                >{{ entry.present ? 'so far' : 'took' }} {{ entry.slot.usedMin }}</span
              ></template
            ><span v-if="!entry.slot.fits" class="alarm"> · no longer fits</span></span
          >
        </span>
      </li>
    </ol>
    <div class="foot">
      <p v-if="inSession">
        <b>{{ now }}</b> now · ends {{ clock(order.localEnd) }}
      </p>
      <p v-else-if="tookMin !== null">took {{ tookMin }} of {{ sheet.lengthMin }} min</p>
      <p v-else>{{ order.plannedMin }} of {{ sheet.lengthMin }} min planned</p>
      <p v-if="tookMin === null && order.slackMin < 0" class="alarm strong" role="status">
        {{ -order.slackMin }} min too much
      </p>
      <p v-else-if="tookMin === null" class="soft">{{ order.slackMin }} min to spare</p>
      <template v-if="sheet.may.hold && (sheet.state === 'planned' || inSession)">
        <button
          v-for="remedy in order.remedies"
          :key="remedy.kind"
          type="button"
          class="quiet remedy"
          @click="$emit('remedy', remedy)"
        >
          {{ words(remedy) }}
        </button>
      </template>
    </div>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 42px 9px 1fr;
  gap: 10px;
  margin-top: 5px;
}
.time {
  color: var(--soft);
  text-align: right;
}
.bar {
  position: relative;
  background: var(--line);
  border-radius: 2px;
}
.done .bar {
  background: var(--closed);
}
.present .bar {
  background: var(--pine);
}
.unfit .bar {
  background: repeating-linear-gradient(135deg, var(--alarm) 0 2px, transparent 2px 5px);
}
.now {
  position: absolute;
  left: -5px;
  right: -5px;
  height: 5px;
  background: var(--gold);
  border: 1px solid var(--ink);
}
.what {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.title {
  all: unset;
  cursor: pointer;
}
.title:hover {
  text-decoration: underline;
}
.title:focus-visible {
  outline: 2px solid var(--alarm);
}
.title {
  overflow-wrap: anywhere;
  color: var(--soft);
  font-weight: 550;
}
.present .title {
  color: var(--ink);
  font-weight: 700;
}
.foot {
  margin-top: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.remedy {
  display: block;
  text-align: left;
}
</style>
