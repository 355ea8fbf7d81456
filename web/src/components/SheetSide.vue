<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Action, Schemas, Sheet } from '../api/client'
import { useActionMoves } from '../composables/useActions'
import { useAgenda } from '../composables/useAgenda'
import type { useMinutes } from '../composables/useMinutes'
import type { useSheet } from '../composables/useSheet'
import type { useTopicDeeds } from '../composables/useTopicDeeds'
import { mediumDay } from '../time'
import ActionEdit from './ActionEdit.vue'
import AgendaPanel from './AgendaPanel.vue'
import ApprovalList from './ApprovalList.vue'
import DoorPanel from './DoorPanel.vue'
import GapList from './GapList.vue'
import HerePanel from './HerePanel.vue'
import PapersPanel from './PapersPanel.vue'
import PreparationPanel from './PreparationPanel.vue'
import ReviewPanel from './ReviewPanel.vue'
import RowPanel from './RowPanel.vue'
import SheetDeeds from './SheetDeeds.vue'
import SpeakersPanel from './SpeakersPanel.vue'
import VersionsPanel from './VersionsPanel.vue'

/** Beside the sheet: what is missing, who is here, what is left over, papers, versions, and what comes next. */
const { sheet, me, doing, minutes, topics } = defineProps<{
  sheet: Sheet
  me: string
  frozen: boolean
  /** Names of who is just typing elsewhere, with their verb. */
  busyOnes: string
  doing: ReturnType<typeof useSheet>
  minutes: ReturnType<typeof useMinutes>
  topics: ReturnType<typeof useTopicDeeds>
}>()
const emit = defineEmits<{ mend: [Sheet['gaps'][number]]; state: [to: Schemas['MeetingState'], reason?: string] }>()
/** One that is called off shows that it is, and nothing else. */
const off = computed(() => sheet.state === 'called_off')
const agenda = useAgenda(() => sheet.id)
const { move: moveAction, handOver } = useActionMoves()
const editing = ref<Action | null>(null)
const everybodyIsHere = () =>
  minutes.act({
    kind: 'attendAll',
    people: sheet.people
      .filter(person => !person.attendance && person.role !== 'informed')
      .map(person => ({ personId: person.id, state: 'present' as const })),
  })
</script>

<template>
  <aside class="no-print" aria-label="People and what is left over">
    <GapList v-if="sheet.state === 'closed' && sheet.may.hold" :gaps="sheet.gaps" @go="gap => emit('mend', gap)" />
    <HerePanel
      v-if="!off"
      :sheet="sheet"
      :me="me"
      @attend="(personId, to, when) => minutes.act({ kind: 'attend', personId, body: { state: to, ...when } })"
      @answer="answer => doing.answer(me, { answer })"
      @everybody="everybodyIsHere"
      @mark="people => minutes.act({ kind: 'attendAll', people })"
    />
    <DoorPanel v-if="sheet.onCall && !frozen" :sheet="sheet" :call="sheet.onCall" @show="doing.show" />
    <RowPanel v-if="!frozen && !off" :sheet="sheet" @show="doing.show" />
    <PreparationPanel v-if="sheet.state === 'planned'" :sheet="sheet" @show="doing.show" />
    <SpeakersPanel v-if="sheet.state === 'in_session'" :sheet="sheet" :me="me" />
    <ReviewPanel
      v-if="sheet.leftOver.length && !off"
      :sheet="sheet"
      @tick="action => moveAction({ action, state: 'done' })"
      @review="(actionId, body) => minutes.act({ kind: 'review', actionId, body })"
      @undo="actionId => minutes.act({ kind: 'review', actionId, body: null })"
      @split="topics.split"
      @edit="action => (editing = action)"
      @hand-over="(action, seriesId, title) => handOver({ action, seriesId, title, meetingId: sheet.id })"
    />
    <ActionEdit v-model="editing" />
    <AgendaPanel
      v-if="sheet.may.hold && sheet.state === 'planned'"
      :sheet="sheet"
      :busy="agenda.isSending.value"
      @send="note => agenda.send(note)"
      @ask="agenda.ask()"
      @settle="take => agenda.settle(take)"
    />
    <PapersPanel
      v-if="!off || sheet.papers.length"
      :papers="sheet.papers"
      :topics="sheet.topics"
      :meeting-id="sheet.id"
      :may-bring="sheet.may.bringTopic && !frozen"
      :me="me"
      :runs="sheet.may.hold"
      @changed="doing.readAgain()"
    />
    <ApprovalList v-if="sheet.toApprove.length" :sheet="sheet" @approve="doing.approve" />
    <VersionsPanel v-if="sheet.versions.length" :sheet="sheet" />
    <p v-if="busyOnes" class="small carried strong no-print" role="status">
      {{ busyOnes }} just typing: closing keeps what is saved by then.
    </p>
    <SheetDeeds
      :sheet="sheet"
      :busy="doing.isActing.value"
      @state="(to, reason) => emit('state', to, reason)"
      @correct="doing.correct"
      @leave-as-issued="doing.leaveAsIssued"
    />
    <p v-if="sheet.state === 'issued'" class="soft small issued">
      Issued and frozen. What is left over went on{{ sheet.next ? ` to ${mediumDay(sheet.next.localStart)}` : '' }}.
    </p>
  </aside>
</template>

<style scoped>
.issued {
  margin-top: 16px;
}
</style>
