<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Action, Schemas } from '../api/client'
import { useActionHistory, useActionMoves } from '../composables/useActions'
import { useDraft } from '../composables/useDraft'
import { clock, count, shortDay } from '../time'
import { bringActionPaper } from '../composables/usePapers'
import FileList from './FileList.vue'
import ProblemNote from './ProblemNote.vue'

/** How one action goes: its notes, files and what became of it, a word on it, and to whom else it may go. */
const { action, series } = defineProps<{ action: Action; series: Schemas['Named'][] }>()
const { note, handOver, giveBack, oneEach } = useActionMoves()
const { draft: text, forget } = useDraft(`note-${action.id}`, () => '')
const noted = ref(0)
const { changes, papers, error, readAgain } = useActionHistory(
  () => action.id,
  () => action.version + noted.value,
)
const others = computed(() => series.filter(one => one.id !== action.seriesId))
const to = ref<string | null>(null)

const SAID: Record<string, string> = {
  raised: 'raised',
  changed: 'changed',
  done: 'done',
  dropped: 'dropped',
  reopened: 'open again',
  handed_over: 'handed over',
  handed_here: 'handed here',
  noted: '',
  delayed: 'will not be done by then',
}
const words = (change: NonNullable<typeof changes.value>[number]) =>
  [SAID[change.kind] ?? change.kind, change.word].filter(Boolean).join(': ')

async function keep() {
  if (!text.value.trim()) return
  await note({ action, id: newKey(), text: text.value })
  forget()
  noted.value += 1
}
function hand() {
  const there = others.value.find(one => one.id === to.value)
  if (there) handOver({ action, seriesId: there.id, title: there.name })
  to.value = null
}
</script>

<template>
  <div class="detail">
    <form v-if="action.mayChange && action.state === 'open'" class="row" novalidate @submit.prevent="keep">
      <v-text-field v-model="text" :label="`How it goes: ${action.text}`" maxlength="500" />
      <v-btn type="submit" variant="outlined" :disabled="!text.trim()">Save</v-btn>
    </form>
    <div v-if="action.mayChange && action.state === 'open'" class="row">
      <template v-if="others.length">
        <v-select
          v-model="to"
          :items="others.map(one => ({ title: one.name, value: one.id }))"
          label="Hand over to another series"
        />
        <v-btn variant="outlined" :disabled="!to" @click="hand">Hand over</v-btn>
      </template>
      <v-btn v-if="action.owners.length > 1" variant="outlined" @click="oneEach(action)"
        >One each for {{ count(action.owners.length, 'owner') }}</v-btn
      >
      <v-btn v-if="action.handedFrom" variant="outlined" @click="giveBack(action)"
        >Give back to {{ action.handedFrom.name }}</v-btn
      >
    </div>
    <FileList
      v-if="papers.length || action.mayChange"
      label="Add files"
      :files="papers"
      :may-bring="action.mayChange"
      :may-remove="() => action.mayChange"
      :bring="(id, file, told) => bringActionPaper(action.id, id, file, told)"
      @changed="readAgain()"
    />
    <ProblemNote :error="error" />
    <ol v-if="changes" class="small">
      <li v-for="change in changes" :key="change.id">
        <span class="soft">{{ shortDay(change.localAt) }}, {{ clock(change.localAt) }}</span> {{ words(change) }}
        <span class="soft">· {{ change.by ?? 'nobody' }}</span>
        <router-link v-if="change.meetingId" :to="`/meetings/${change.meetingId}`"> its sheet</router-link>
      </li>
    </ol>
    <p class="small">
      <router-link
        v-if="action.raisedAtMeetingId"
        :to="`/meetings/${action.raisedAtMeetingId}${action.lineId ? `#line-${action.lineId}` : ''}`"
        >Where it was raised</router-link
      >
    </p>
  </div>
</template>

<style scoped>
.detail {
  grid-column: 2 / -1;
  padding: 6px 0 4px;
  color: var(--ink);
  display: grid;
  gap: 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: flex-start;
}
.row > .v-input {
  flex: 1 1 220px;
}
ol {
  padding: 0;
  margin: 4px 0;
  list-style: none;
}
li {
  padding: 2px 0;
  overflow-wrap: anywhere;
}
</style>
