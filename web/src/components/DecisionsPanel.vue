<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDecisions } from '../composables/useSeries'
import { mediumDay } from '../time'
import ProblemNote from './ProblemNote.vue'

/** The register of decisions: numbered through the year, each leading to its sheet. */
const { seriesId } = defineProps<{ seriesId: string }>()
const { decisions, error } = useDecisions(() => seriesId)
const words = ref('')
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return decisions.value?.filter(one => {
    const text = `${one.number} ${one.text} ${one.topic ?? ''}`.toLowerCase()
    return wanted.every(word => text.includes(word))
  })
})
</script>

<template>
  <ProblemNote :error="error" />
  <div v-if="decisions?.length" class="row spread tools">
    <v-text-field v-model="words" label="Find a decision" class="find" clearable />
    <a class="small" :href="`/api/series/${seriesId}/decisions.csv`" download>As CSV</a>
  </div>
  <ol class="ruled">
    <li v-for="one in found" :key="one.lineId">
      <span class="strong number">{{ one.number }}</span>
      <span class="text"
        >{{ one.text }}<span v-if="one.topic" class="soft small"> · {{ one.topic }}</span></span
      >
      <span class="small">
        <router-link :to="`/meetings/${one.meetingId}`">{{ mediumDay(one.decidedOn) }}</router-link><span
          v-if="one.approved"
          class="fresh strong"
          >, approved</span
        >
      </span>
    </li>
  </ol>
  <p v-if="decisions?.length === 0" class="soft">
    Nothing has been decided yet. A line such as “Decided: two boats” is a decision; it stands here once its meeting is
    closed.
  </p>
  <p v-else-if="found?.length === 0" class="soft">No decision has these words.</p>
</template>

<style scoped>
.tools {
  margin-top: 8px;
}
.find {
  max-width: 300px;
}
ol {
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 74px 1fr auto;
  gap: 4px 14px;
  padding: 8px 0;
}
.text {
  overflow-wrap: anywhere;
  white-space: pre-line;
}
@media (max-width: 860px) {
  li {
    grid-template-columns: 74px 1fr;
  }
  li > :last-child {
    grid-column: 2;
  }
}
</style>
