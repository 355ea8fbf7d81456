<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas, Sheet } from '../api/client'
import LeftOverList from '../components/LeftOverList.vue'
import LineEntry from '../components/LineEntry.vue'
import LineList from '../components/LineList.vue'
import MeetingChange from '../components/MeetingChange.vue'
import BroughtIn from '../components/BroughtIn.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RunningOrder from '../components/RunningOrder.vue'
import SharedTopic from '../components/SharedTopic.vue'
import SheetBlock from '../components/SheetBlock.vue'
import SheetJumps from '../components/SheetJumps.vue'
import SheetHead from '../components/SheetHead.vue'
import SheetSide from '../components/SheetSide.vue'
import TopicBlock from '../components/TopicBlock.vue'
import TopicDeeds from '../components/TopicDeeds.vue'
import TopicForm from '../components/TopicForm.vue'
import { useAgenda } from '../composables/useAgenda'
import { useFoundLine } from '../composables/useFoundLine'
import { useInSight } from '../composables/useInSight'
import { openLineAbove } from '../composables/useLineKeys'
import { useMinutes } from '../composables/useMinutes'
import { useSession } from '../composables/useSession'
import { useSheet } from '../composables/useSheet'
import { useSheetState } from '../composables/useSheetState'
import { useSheetKeys } from '../composables/useSheetKeys'
import { useTopicDeeds } from '../composables/useTopicDeeds'
import { useUndoKeys } from '../composables/useUndoKeys'
import { useWhoWrites } from '../composables/useWhoWrites'
import { LEFT, useWritingSpot } from '../composables/useWritingSpot'
import { list, mediumDay } from '../time'
import { useTitle } from '../composables/useTitle'

const { id } = defineProps<{ id: string }>()
const { person: me } = useSession()
const doing = useSheet(() => id)
const { error, live } = doing
const minutes = useMinutes(() => id, doing.sheet, doing)
const { shown: sheet, unsent } = minutes
useTitle(() => sheet.value && `${sheet.value.seriesTitle}, ${mediumDay(sheet.value.localStart)}`)
const { canWrite, showsLeftOver, discussed, writing, write } = useWritingSpot(sheet)
const { answer: answerTopic } = useAgenda(() => id)
const half = ref(false)
const sharing = ref<string | null>(null)
const who = useWhoWrites(
  sheet,
  writing,
  computed(() => half.value || unsent.value.length > 0 || minutes.editing.value),
  () => me.value?.id,
)
const topics = useTopicDeeds(sheet, doing, minutes)

const frozen = computed(() => !sheet.value || sheet.value.state === 'issued' || sheet.value.state === 'called_off')
const route = useRoute()
const changing = ref(route.query.change === '1')
useFoundLine(() => sheet.value?.id)
const { inSight, bring } = useInSight(sheet)
type Entry = InstanceType<typeof LineEntry>
const entry = useTemplateRef<Entry | Entry[]>('entry')
const theEntry = () => (Array.isArray(entry.value) ? entry.value[0] : entry.value)
const topicForm = ref<{ focus: () => void } | null>(null)
// On a phone the keyboard would cover the page: there one taps.
const touches = matchMedia('(pointer: coarse)').matches
const focusEntry = () => nextTick(() => theEntry()?.focus())
watch(writing, async (now, before) => {
  if (!now || now === before || touches) return
  await focusEntry()
  if (before) bring()
})
watch(
  () => sheet.value?.id,
  shown => {
    // In a closed sheet the eye is led to what is missing instead.
    if (!shown || touches || sheet.value?.state === 'closed') return
    nextTick(() => (writing.value ? focusEntry() : beginAtTop()))
  },
  { immediate: true },
)

/** A planned sheet opens at its top: the hand goes to the next topic only where that does not scroll. */
function beginAtTop() {
  const field = document.querySelector<HTMLElement>('.add input')
  if (field && field.getBoundingClientRect().bottom < innerHeight) topicForm.value?.focus()
  else document.querySelector<HTMLElement>('.paper h1')?.focus({ preventScroll: true })
}

const mayClose = computed(() => !!sheet.value?.may.hold && sheet.value.may.seeClosed)

const numbers = computed(
  () =>
    new Map(
      (sheet.value?.topics ?? []).map((topic, i) => [
        topic.id,
        topic.number ?? `${i + 1 + (showsLeftOver.value ? 1 : 0)}`,
      ]),
    ),
)
const titleOf = (at: string) => sheet.value?.topics.find(topic => topic.id === at)?.title ?? 'Left over'
const keyOf = (at: string) => (at === LEFT ? null : at)
const keep = (at: string) => (text: string, kind?: Schemas['LineKind']) =>
  inSight(minutes.add(keyOf(at), text, { kind }))
const busyOnes = computed(() => {
  const names = who.others.value.filter(one => one.editing).map(one => one.name)
  return names.length ? `${list(names)} ${names.length === 1 ? 'is' : 'are'}` : ''
})

/** The clock goes on to a topic, and the place of writing with it. */
function discuss(at: string) {
  write(at)
  if (sheet.value?.state === 'in_session' && sheet.value.may.hold) doing.discuss(keyOf(at))
}
function nextTopic() {
  const topics = sheet.value?.topics.filter(topic => !topic.putOff) ?? []
  const following = topics[topics.findIndex(topic => topic.id === writing.value) + 1]
  if (following) discuss(following.id)
}

function goTo(at: string) {
  if (canWrite.value) write(at)
  document.querySelector(at === LEFT ? '.left-over' : `[data-topic="${at}"]`)?.scrollIntoView({ block: 'start' })
}
/** To the place of what is missing: the line is opened, or the box under its topic. */
async function mend({ lineId, topicId }: Sheet['gaps'][number]) {
  goTo(topicId ?? LEFT)
  await nextTick()
  if (lineId) document.querySelector<HTMLElement>(`[data-line="${lineId}"] [data-edit]`)?.click()
}
const { setState } = useSheetState(sheet, doing, minutes, () => theEntry()?.keepNow())

function toLine() {
  document.querySelector('[data-entry]')?.scrollIntoView({ block: 'center' })
  focusEntry()
}
useUndoKeys(minutes.undo, minutes.redo)
useSheetKeys(sheet, canWrite, discussed, {
  toNextLine: focusEntry,
  nextTopic,
  write,
  change: () => (changing.value = true),
  addTopic: () => topicForm.value?.focus(),
  putOff: () => {
    const topic = sheet.value?.topics.find(one => one.id === writing.value)
    if (topic) topics.putOff(topic.id, !topic.putOff)
  },
  askOut: () => document.querySelector<HTMLElement>('[data-ask-out]')?.click(),
})
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <div v-if="sheet" class="page">
      <RunningOrder
        v-if="sheet.state !== 'called_off'"
        :sheet="sheet"
        class="order no-print"
        @remedy="topics.remedy"
        @go="goTo"
      />
      <article class="sheet paper">
        <SheetHead
          :sheet="sheet"
          :unsent="frozen ? null : unsent.length"
          :live="live"
          :can-undo="!frozen && minutes.canUndo.value"
          :can-redo="!frozen && minutes.canRedo.value"
          @change="changing = true"
          @undo="minutes.undo()"
          @redo="minutes.redo()"
        />

        <SheetJumps v-if="canWrite" :sheet="sheet" @line="toLine" />
        <SheetBlock
          v-if="showsLeftOver && sheet.state !== 'called_off'"
          class="left-over"
          :here="writing === LEFT"
          aria-label="Left over"
        >
          <template #number>1</template>
          <h2>
            <button v-if="canWrite && writing !== LEFT" type="button" class="title" @click="write(LEFT)">
              Left over</button
            ><template v-else>Left over</template>
          </h2>
          <p v-if="who.at(null)" class="small carried strong no-print">{{ who.at(null) }} writes here</p>
          <LeftOverList :actions="sheet.leftOver" />
          <LineList :lines="sheet.leftOverLines" :minutes="minutes" :people="sheet.people" :can-write="canWrite" />
          <LineEntry
            v-if="writing === LEFT"
            ref="entry"
            :meeting-id="id"
            :topic-id="null"
            topic-title="Left over"
            @keep="(text, kind) => keep(LEFT)(text, kind)"
            @keep-several="texts => minutes.addSeveral(null, texts)"
            @up="openLineAbove"
            @typing="now => (half = now)"
          />
        </SheetBlock>

        <TopicBlock
          v-for="topic in sheet.topics.filter(topics.isThere)"
          :key="topic.id"
          :topic="topic"
          :number="numbers.get(topic.id)!"
          :papers="sheet.papers.filter(paper => paper.topicId === topic.id)"
          :people="sheet.people"
          :minutes="minutes"
          :here="writing === topic.id"
          :can-write="canWrite"
          :may-close="mayClose"
          :can-order="sheet.may.hold && (sheet.state === 'planned' || sheet.state === 'in_session')"
          :can-change="
            !frozen &&
            !('keptAt' in sheet) &&
            (sheet.may.hold || topic.broughtById === me?.id || topic.presenter?.id === me?.id)
          "
          :dim="topic.putOff || (sheet.state === 'in_session' && !topic.taken && !topic.present)"
          @take="write(topic.id)"
          @move="by => topics.move(topic.id, by)"
          @drop="dropped => topics.dropBefore(topic.id, dropped)"
          @carry="onto => topics.dropBefore(onto, topic.id)"
          @change="body => topics.change(topic, body)"
          @remove="topics.remove(topic)"
        >
          <template #deeds>
            <TopicDeeds
              :topic="topic"
              :sheet="sheet"
              :writes="who.at(topic.id)"
              :discussed="discussed"
              :sharing="sharing === topic.id"
              @put-off="topics.putOff(topic.id, !topic.putOff)"
              @share="sharing = sharing === topic.id ? null : topic.id"
              @discuss="discuss(topic.id)"
            />
          </template>
          <SharedTopic
            v-if="sharing === topic.id"
            :topic-id="topic.id"
            :series-id="sheet.seriesId"
            :may-share="sheet.may.hold && !frozen"
            @leave="sharing = null"
          />
          <LineEntry
            v-if="writing === topic.id"
            ref="entry"
            :meeting-id="id"
            :topic-id="topic.id"
            :topic-title="topic.title"
            class="here-entry"
            @keep="(text, kind) => keep(topic.id)(text, kind)"
            @keep-several="texts => minutes.addSeveral(topic.id, texts)"
            @up="openLineAbove"
            @typing="now => (half = now)"
          />
        </TopicBlock>

        <p v-if="writing && discussed && writing !== discussed" class="follow no-print" role="status">
          Being discussed: <b>{{ titleOf(discussed) }}</b>
          <button type="button" class="quiet" @click="write(discussed)">Write there</button>
        </p>
        <p v-if="sheet.topics.length === 0 && !showsLeftOver && sheet.state !== 'called_off'" class="soft none">
          No topic yet.{{ sheet.state === 'planned' && sheet.may.bringTopic ? ' Add the first one below.' : '' }}
        </p>
        <BroughtIn
          :topics="sheet.broughtIn.filter(topics.isThere)"
          :may-answer="sheet.may.hold"
          :me="me?.id ?? ''"
          @answer="(topicId, answer, word) => answerTopic({ id: topicId, answer, word })"
          @withdraw="topics.withdraw"
        />
        <div v-if="sheet.may.bringTopic && (sheet.state === 'planned' || sheet.state === 'in_session')" class="add">
          <TopicForm
            :key="id"
            ref="topicForm"
            :meeting-id="id"
            :people="sheet.people"
            :may-close="mayClose"
            @keep="topics.add"
          />
        </div>
      </article>

      <SheetSide
        class="side"
        :sheet="sheet"
        :me="me?.id ?? ''"
        :frozen="frozen"
        :busy-ones="busyOnes"
        :doing="doing"
        :minutes="minutes"
        :topics="topics"
        @mend="mend"
        @state="setState"
      />
      <MeetingChange v-if="sheet.may.hold && sheet.state === 'planned'" v-model="changing" :sheet="sheet" />
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr) 290px;
  gap: 22px;
  align-items: start;
}
.paper {
  padding: 30px 0;
  min-height: 70vh;
}
.order {
  padding-top: 6px;
  position: sticky;
  top: 12px;
}
.side {
  padding-top: 6px;
}
.here-entry {
  margin-top: 4px;
}
.follow {
  position: sticky;
  bottom: 0;
  padding: 8px 34px 8px 66px;
  background: var(--sheet);
  border-top: 1px solid var(--line);
}
.add {
  padding: 14px 34px 0 66px;
  border-top: 1px solid var(--line);
  margin-top: 14px;
}
.none {
  padding: 0 66px;
}
@media (max-width: 1080px) {
  .page {
    grid-template-columns: minmax(0, 1fr) 280px;
  }
  .order {
    display: none;
  }
}
@media (max-width: 860px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .add {
    padding: 14px 16px 0;
  }
}
@media print {
  .page {
    display: block;
  }
  .paper {
    padding: 0;
    min-height: 0;
  }
}
</style>
