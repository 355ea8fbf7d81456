<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useDecisions } from '../composables/useSeries'
import DecisionRow from './DecisionRow.vue'
import ProblemNote from './ProblemNote.vue'

/** The register of decisions of a series: numbered through the year, each leading to its line. */
const { seriesId } = defineProps<{ seriesId: string; mayChange: boolean }>()
const { decisions, error } = useDecisions(() => seriesId)
const words = ref('')
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return decisions.value?.filter(one => {
    const text = `${one.number} ${one.text} ${one.topic ?? ''}`.toLowerCase()
    return wanted.every(word => text.includes(word))
  })
})
// The newest stands first.
const laterThan = (decision: Schemas['Decision']) => {
  const all = decisions.value ?? []
  return all.slice(
    0,
    Math.max(
      all.findIndex(one => one.lineId === decision.lineId),
      0,
    ),
  )
}
</script>

<template>
  <ProblemNote :error="error" />
  <div v-if="decisions?.length" class="row spread tools">
    <v-text-field v-model="words" label="Find a decision" class="find" clearable />
    <span class="row small">
      <router-link to="/decisions">Of all series</router-link>
      <a :href="`/api/series/${seriesId}/decisions.csv`" download>As CSV</a>
    </span>
  </div>
  <ol class="ruled">
    <DecisionRow
      v-for="one in found"
      :key="one.lineId"
      :decision="one"
      :may-change="mayChange"
      :later="laterThan(one)"
    />
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
</style>
