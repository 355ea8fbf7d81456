<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { v7 as newKey } from 'uuid'
import type { Line, Schemas } from '../api/client'
import HerePanel from '../components/HerePanel.vue'
import LeftOverList from '../components/LeftOverList.vue'
import LineEntry from '../components/LineEntry.vue'
import MeetingChange from '../components/MeetingChange.vue'
import LineRow from '../components/LineRow.vue'
import PapersPanel from '../components/PapersPanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ReviewPanel from '../components/ReviewPanel.vue'
import RunningOrder from '../components/RunningOrder.vue'
import SheetDeeds from '../components/SheetDeeds.vue'
import SheetHead from '../components/SheetHead.vue'
import TopicBlock from '../components/TopicBlock.vue'
import TopicForm from '../components/TopicForm.vue'
import UnsentRow from '../components/UnsentRow.vue'
import { useActionMoves } from '../composables/useActions'
import { useKeys } from '../composables/useKeys'
import { useNotice } from '../composables/useNotice'
import { useRemoval } from '../composables/useRemoval'
import { useSession } from '../composables/useSession'
import { useSheet } from '../composables/useSheet'
import { useUnsent } from '../composables/useUnsent'
import { droppedOn, moved } from '../order'
import { mediumDay } from '../time'

const { id } = defineProps<{ id: string }>()
const { person: me } = useSession()
const doing = useSheet(() => id)
const { sheet, error, live, isActing } = doing
const { unsent, send, onTaken } = useUnsent(() => id)
const { say } = useNotice()
const { move: moveAction } = useActionMoves()
const removal = useRemoval()

const LEFT = 'left-over'
const frozen = computed(() => !sheet.value || sheet.value.state === 'issued' || sheet.value.state === 'called_off')
const canWrite = computed(
  () => !!sheet.value?.may.write && (sheet.value.state === 'in_session' || sheet.value.state === 'closed'),
)
const showsLeftOver = computed(
  () =>
    !!sheet.value &&
    (sheet.value.leftOver.length > 0 ||
      sheet.value.leftOverLines.length > 0 ||
      (canWrite.value && sheet.value.topics.length === 0)),
)
// Where the next line goes: what is being discussed; in a closed sheet what was last chosen.
const chosen = ref<string | null>(null)
const changing = ref(useRoute().query.change === '1')
const writing = computed(() => {
  if (!sheet.value || !canWrite.value) return null
  if (sheet.value.state === 'in_session')
    return sheet.value.presentTopicId ?? (showsLeftOver.value ? LEFT : (sheet.value.topics[0]?.id ?? LEFT))
  return chosen.value ?? sheet.value.topics.at(-1)?.id ?? LEFT
})
const entry = ref<{ focus: () => void } | { focus: () => void }[] | null>(null)
const topicForm = ref<{ focus: () => void } | null>(null)
// On a phone the keyboard would cover the page: there one taps.
const touches = matchMedia('(pointer: coarse)').matches
const focusEntry = () => nextTick(() => (Array.isArray(entry.value) ? entry.value[0] : entry.value)?.focus())
watch([writing, () => sheet.value?.state], ([now], [before]) => {
  if (now && now !== before && !touches) focusEntry()
})
watch(
  () => sheet.value?.id,
  shown => {
    if (shown && !touches) nextTick(() => (writing.value ? focusEntry() : topicForm.value?.focus()))
  },
  { immediate: true },
)

const numbers = computed(
  () => new Map((sheet.value?.topics ?? []).map((topic, i) => [topic.id, i + 1 + (showsLeftOver.value ? 1 : 0)])),
)
const unsentAt = (topicId: string | null) =>
  unsent.value.filter(one => (one.line.topicId ?? null) === topicId && !known.value.has(one.line.id))
const known = computed(
  () =>
    new Set(
      [...(sheet.value?.leftOverLines ?? []), ...(sheet.value?.topics ?? []).flatMap(topic => topic.lines)].map(
        line => line.id,
      ),
    ),
)
// Reading the sheet again only confirms it.
onBeforeUnmount(
  onTaken((meetingId, line) => {
    if (meetingId === id && !known.value.has(line.id)) doing.keepLine(line)
  }),
)

function take(topicId: string | null) {
  if (sheet.value?.state === 'in_session') doing.discuss(topicId)
  else chosen.value = topicId ?? LEFT
}

const topicIds = () => sheet.value!.topics.map(topic => topic.id)

function move(topicId: string, by: number) {
  const ids = moved(topicIds(), topicId, by)
  if (ids) doing.order(ids)
}

function dropBefore(topicId: string, droppedId: string) {
  const ids = droppedOn(topicIds(), droppedId, topicId)
  if (ids) doing.order(ids)
}

const lines = computed(
  () =>
    new Map(
      [...(sheet.value?.leftOverLines ?? []), ...(sheet.value?.topics ?? []).flatMap(topic => topic.lines)].map(
        line => [line.id, line],
      ),
    ),
)

function removeLine(line: Line) {
  doing
    .removeLine(line.id)
    .then(() =>
      say('The line is removed.', () =>
        send({
          id: newKey(),
          topicId: line.topicId,
          kind: line.kind,
          text: line.text,
          action: line.action && {
            id: newKey(),
            ownerIds: line.action.owners.map(owner => owner.id),
            dueOn: line.action.dueOn,
          },
        }).then(doing.readAgain),
      ),
    )
    .catch(() => {
      /* said at the foot */
    })
}

const changeLine = (line: Line, body: Schemas['ChangedLine']) =>
  doing.changeLine(line, body).catch(() => {
    /* said at the foot */
  })

function remedy(way: Schemas['Sheet']['runningOrder']['remedies'][number]) {
  if (way.kind === 'carry') return way.topicIds.forEach(topicId => doing.putOff(topicId, true))
  const topic = sheet.value!.topics.find(one => one.id === way.topicIds[0])!
  doing.changeTopic(topic, {
    title: topic.title,
    purpose: topic.purpose,
    presenterId: topic.presenter?.id ?? null,
    lengthMin: way.toMin!,
  })
}

function setState(to: Schemas['MeetingState'], reason?: string) {
  const from = sheet.value!.state
  doing.setState(to, reason)
  if (to === 'closed' && from === 'in_session') say('The meeting is closed.', () => doing.setState('in_session'))
}

function nextTopic() {
  const topics = sheet.value?.topics.filter(topic => !topic.putOff) ?? []
  const following = topics[topics.findIndex(topic => topic.id === writing.value) + 1]
  if (following && canWrite.value) take(following.id)
}

useKeys([
  { key: 'l', label: 'To the next line', when: () => canWrite.value, run: focusEntry },
  { key: 'n', label: 'On to the next topic', when: () => canWrite.value, run: nextTopic },
  {
    key: 'c',
    label: 'Change this meeting',
    when: () => !!sheet.value?.may.hold && sheet.value.state === 'planned',
    run: () => {
      changing.value = true
    },
  },
  {
    key: 't',
    label: 'Add a topic',
    when: () => !!sheet.value?.may.bringTopic && ['planned', 'in_session'].includes(sheet.value.state),
    run: () => topicForm.value?.focus(),
  },
])
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <div v-if="sheet" class="page">
      <RunningOrder :sheet="sheet" class="order no-print" @remedy="remedy" />
      <article class="sheet paper">
        <SheetHead :sheet="sheet" :unsent="frozen ? null : unsent.length" :live="live" @change="changing = true" />

        <section v-if="showsLeftOver" class="block" :class="{ here: writing === LEFT }" aria-label="Left over">
          <span class="nr">1</span>
          <div class="body">
            <h2>
              <button v-if="canWrite && writing !== LEFT" type="button" class="title" @click="take(null)">
                Left over</button
              ><template v-else>Left over</template>
            </h2>
            <LeftOverList :actions="sheet.leftOver" />
            <ul class="lines">
              <LineRow
                v-for="line in sheet.leftOverLines"
                :key="line.id"
                :line="line"
                :people="sheet.people"
                :can-write="canWrite"
                @change="body => changeLine(line, body)"
                @remove="removeLine(line)"
              />
              <UnsentRow v-for="one in unsentAt(null)" :key="one.line.id" :entry="one" />
            </ul>
            <LineEntry
              v-if="writing === LEFT"
              ref="entry"
              :meeting-id="id"
              :topic-id="null"
              topic-title="Left over"
              @keep="send"
            />
          </div>
        </section>

        <TopicBlock
          v-for="topic in sheet.topics.filter(removal.isThere)"
          :key="topic.id"
          :topic="topic"
          :number="numbers.get(topic.id)!"
          :people="sheet.people"
          :unsent="unsentAt(topic.id)"
          :here="writing === topic.id"
          :can-write="canWrite"
          :can-order="sheet.may.hold && (sheet.state === 'planned' || sheet.state === 'in_session')"
          :can-change="!frozen && (sheet.may.hold || topic.broughtById === me?.id || topic.presenter?.id === me?.id)"
          :dim="topic.putOff || (sheet.state === 'in_session' && !topic.taken && !topic.present)"
          @take="take(topic.id)"
          @move="by => move(topic.id, by)"
          @drop="dropped => dropBefore(topic.id, dropped)"
          @carry="onto => dropBefore(onto, topic.id)"
          @change="body => doing.changeTopic(topic, body)"
          @remove="removal.remove(topic.id, `The topic ${topic.title} is removed.`, () => doing.removeTopic(topic.id))"
          @change-line="(lineId, body) => changeLine(lines.get(lineId)!, body)"
          @remove-line="lineId => removeLine(lines.get(lineId)!)"
        >
          <template #deeds>
            <button
              v-if="sheet.may.hold && !frozen && sheet.state !== 'closed'"
              type="button"
              class="quiet no-print"
              :aria-label="`${topic.putOff ? 'Take it after all' : 'Put off'}: ${topic.title}`"
              @click="doing.putOff(topic.id, !topic.putOff)"
            >
              {{ topic.putOff ? 'Take it after all' : 'Put off' }}
            </button>
          </template>
          <LineEntry
            v-if="writing === topic.id"
            ref="entry"
            :meeting-id="id"
            :topic-id="topic.id"
            :topic-title="topic.title"
            class="here-entry"
            @keep="send"
          />
        </TopicBlock>

        <p v-if="sheet.topics.length === 0 && !showsLeftOver" class="soft none">
          No topic yet.{{ sheet.state === 'planned' && sheet.may.bringTopic ? ' Add the first one below.' : '' }}
        </p>
        <div v-if="sheet.may.bringTopic && (sheet.state === 'planned' || sheet.state === 'in_session')" class="add">
          <TopicForm ref="topicForm" :people="sheet.people" @keep="body => doing.addTopic({ id: newKey(), ...body })" />
        </div>
      </article>

      <aside class="side no-print" aria-label="People and what is left over">
        <HerePanel
          :sheet="sheet"
          :me="me?.id ?? ''"
          @attend="(personId, to) => doing.attend(personId, { state: to })"
          @answer="answer => doing.answer(me!.id, { answer })"
          @everybody="
            doing.attendAll(
              sheet.people
                .filter(person => !person.attendance && person.role !== 'informed')
                .map(person => ({ personId: person.id, state: 'present' as const })),
            )
          "
        />
        <ReviewPanel
          v-if="sheet.leftOver.length"
          :sheet="sheet"
          @tick="action => moveAction({ action, state: 'done' })"
          @review="doing.review"
          @undo="doing.takeBackReview"
        />
        <PapersPanel
          :papers="sheet.papers"
          :meeting-id="id"
          :may-bring="sheet.may.bringTopic && !frozen"
          :me="me?.id ?? ''"
          :runs="sheet.may.hold"
          @changed="doing.readAgain()"
        />
        <SheetDeeds :sheet="sheet" :busy="isActing" @state="setState" />
        <p v-if="sheet.state === 'issued'" class="soft small issued">
          Issued and frozen. What is left over went on{{ sheet.next ? ` to ${mediumDay(sheet.next.localStart)}` : '' }}.
        </p>
      </aside>
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
.block {
  display: grid;
  grid-template-columns: 44px 1fr;
  padding: 10px 34px 8px 0;
  border-left: 4px solid transparent;
}
.block.here {
  background: color-mix(in srgb, var(--pine-pale) 45%, transparent);
  border-left-color: var(--pine);
}
.nr {
  text-align: right;
  font-weight: 650;
  color: var(--soft);
  padding-top: 2px;
}
.body {
  padding-left: 18px;
  min-width: 0;
}
.body h2 {
  font-size: 1.2143rem;
}
.title {
  all: unset;
  cursor: pointer;
}
.title:focus-visible {
  outline: 2px solid var(--alarm);
}
.lines {
  margin-left: -70px !important;
}
.here-entry {
  margin-top: 4px;
}
.add {
  padding: 14px 34px 0 66px;
  border-top: 1px solid var(--line);
  margin-top: 14px;
}
.none {
  padding: 0 66px;
}
.issued {
  margin-top: 16px !important;
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
  .block {
    grid-template-columns: 26px 1fr;
    padding-right: 12px;
  }
  .body {
    padding-left: 8px;
  }
  .lines {
    margin-left: 0 !important;
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
