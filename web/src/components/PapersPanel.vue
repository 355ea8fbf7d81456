<script setup lang="ts">
import { ref } from 'vue'
import FileList from './FileList.vue'
import { bringPaper } from '../composables/usePapers'
import type { Schemas } from '../api/client'

/** Papers of a meeting, and for which topic those are that one adds: they go where it goes. */
const { papers, topics, meetingId, mayBring, me } = defineProps<{
  papers: Schemas['Paper'][]
  topics: { id: string; title: string }[]
  meetingId: string
  mayBring: boolean
  me: string
  runs: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const topicId = ref<string | null>(null)
</script>

<template>
  <section v-if="papers.length || mayBring" class="papers" aria-labelledby="papers">
    <h2 id="papers" class="eyebrow">Papers{{ papers.length ? ` · ${papers.length}` : '' }}</h2>
    <p class="small"><a :href="`/api/meetings/${meetingId}/agenda`" download>The agenda as a PDF</a></p>
    <FileList
      label="Add papers"
      :files="papers"
      :topics="topics"
      :may-bring="mayBring"
      :may-remove="paper => runs || paper.broughtBy.id === me"
      :bring="(id, file, told) => bringPaper({ meetingId, topicId }, id, file, told)"
      @changed="emit('changed')"
    >
      <select
        v-if="mayBring && topics.length"
        v-model="topicId"
        class="in-line small"
        aria-label="Papers added are for"
      >
        <option :value="null">for the whole meeting</option>
        <option v-for="topic in topics" :key="topic.id" :value="topic.id">for {{ topic.title }}</option>
      </select>
    </FileList>
  </section>
</template>

<style scoped>
.papers {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
select {
  margin-right: 12px;
}
</style>
