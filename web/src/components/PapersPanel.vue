<script setup lang="ts">
import { ref } from 'vue'
import { v7 as newKey } from 'uuid'
import { bringPaper, removePaper } from '../composables/usePapers'
import type { Schemas } from '../api/client'
import { useRemoval } from '../composables/useRemoval'

/** Papers of a meeting: chosen, dragged or pasted, several at once, with how far each has come. */
const { papers, topics, meetingId, mayBring, me } = defineProps<{
  papers: Schemas['Paper'][]
  topics: { id: string; title: string }[]
  meetingId: string
  mayBring: boolean
  me: string
  runs: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const coming = ref<{ name: string; share: number; fault: string; retry: () => void }[]>([])
const over = ref(false)
// To which topic they belong: they go where it goes.
const topicId = ref<string | null>(null)
const titleOf = (id: string | null | undefined) => topics.find(topic => topic.id === id)?.title

function bring(files: Iterable<File>) {
  for (const file of files) one(file, newKey())
}
function bringPicked({ target }: Event) {
  const field = target as HTMLInputElement
  bring(field.files ?? [])
  field.value = ''
}
function bringDropped({ dataTransfer }: DragEvent) {
  over.value = false
  if (mayBring) bring(dataTransfer?.files ?? [])
}
async function one(file: File, id: string) {
  coming.value.push({
    name: file.name,
    share: 0,
    fault: '',
    retry: () => {
      coming.value = coming.value.filter(other => other.name !== file.name)
      one(file, id)
    },
  })
  const entry = coming.value.at(-1)!
  try {
    await bringPaper(meetingId, id, file, topicId.value, share => {
      entry.share = share
    })
    coming.value = coming.value.filter(other => other !== entry)
    emit('changed')
  } catch (fault) {
    entry.fault = (fault as Error).message
  }
}
const { remove, isThere } = useRemoval()
const drop = (paper: Schemas['Paper']) =>
  remove(paper.id, `${paper.name} is removed.`, () => removePaper(paper.id).then(() => emit('changed')))
const size = (bytes: number) =>
  bytes < 100_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
</script>

<template>
  <section
    v-if="papers.length || mayBring"
    class="papers"
    :class="{ over }"
    aria-labelledby="papers"
    @dragover.prevent="over = mayBring"
    @dragleave="over = false"
    @drop.prevent="bringDropped"
    @paste="mayBring && bring($event.clipboardData?.files ?? [])"
  >
    <h2 id="papers" class="eyebrow">Papers{{ papers.length ? ` · ${papers.length}` : '' }}</h2>
    <p class="small"><a :href="`/api/meetings/${meetingId}/agenda`" download>The agenda as a PDF</a></p>
    <ul>
      <li v-for="paper in papers.filter(isThere)" :key="paper.id" class="row spread">
        <span
          ><a :href="`/api/papers/${paper.id}`" download>{{ paper.name }}</a>
          <span v-if="titleOf(paper.topicId)" class="small soft"> for {{ titleOf(paper.topicId) }}</span></span
        >
        <span class="small soft"
          >{{ size(paper.sizeBytes) }}
          <button
            v-if="mayBring && (runs || paper.broughtBy.id === me)"
            type="button"
            class="quiet small"
            :aria-label="`Remove: ${paper.name}`"
            @click="drop(paper)"
          >
            Remove
          </button></span
        >
      </li>
      <li v-for="entry in coming" :key="entry.name" role="status">
        <span class="small">{{ entry.name }}</span>
        <v-progress-linear
          v-if="!entry.fault"
          :model-value="100 * entry.share"
          color="primary"
          :aria-label="`Bringing ${entry.name}`"
        />
        <p v-else class="small alarm">
          {{ entry.fault }} <button type="button" class="quiet small" @click="entry.retry()">Try again</button
          ><button
            type="button"
            class="quiet small"
            :aria-label="`Dismiss: ${entry.name}`"
            @click="coming = coming.filter(other => other !== entry)"
          >
            Dismiss
          </button>
        </p>
      </li>
    </ul>
    <select v-if="mayBring && topics.length" v-model="topicId" class="small" aria-label="Papers added are for">
      <option :value="null">for the whole meeting</option>
      <option v-for="topic in topics" :key="topic.id" :value="topic.id">for {{ topic.title }}</option>
    </select>
    <label v-if="mayBring" class="quiet small add"
      >Add papers<span class="soft"> or drag them here</span
      ><input type="file" multiple aria-label="Add papers" @change="bringPicked"
    /></label>
  </section>
</template>

<style scoped>
.papers {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
.papers.over {
  outline: 2px dashed var(--pine);
  outline-offset: 4px;
}
select {
  max-width: 100%;
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  color: var(--soft);
  font: inherit;
  margin-right: 12px;
}
select option {
  color: #17231f;
  background: #fff;
}
li {
  padding: 3px 0;
  overflow-wrap: anywhere;
}
.add {
  position: relative;
  display: inline-block;
  padding-left: 0;
}
.add input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.add:focus-within {
  outline: 2px solid var(--alarm);
}
</style>
