<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useSuperseding } from '../composables/useSearch'
import { mediumDay } from '../time'

/** One decision: its number, its words, where it was taken, and whether it still holds. */
const { decision, later = [] } = defineProps<{
  decision: Schemas['Decision']
  showSeries?: boolean
  mayChange?: boolean
  later?: Schemas['Decision'][]
}>()
const { supersede } = useSuperseding()
const choosing = ref(false)
const link = computed(() => `/meetings/${decision.meetingId}#line-${decision.lineId}`)

function choose(byLineId: string) {
  supersede({ lineId: decision.lineId, byLineId })
  choosing.value = false
}
</script>

<template>
  <li>
    <span class="strong number">{{ decision.number }}</span>
    <span class="text"
      ><span :class="{ over: decision.supersededBy }">{{ decision.text }}</span
      ><span v-if="decision.topic" class="soft small"> · {{ decision.topic }}</span
      ><span v-if="showSeries" class="soft small"> · {{ decision.series.name }}</span>
      <span v-if="decision.motion" class="soft small"> · {{ decision.motion }}</span>
      <span v-if="decision.belowQuorum" class="alarm strong small"> · below quorum</span>
      <span v-if="decision.supersededBy" class="small carried strong">
        superseded by
        <router-link :to="`/meetings/${decision.supersededBy.meetingId}#line-${decision.supersededBy.lineId}`">{{
          decision.supersededBy.number
        }}</router-link></span
      >
      <button
        v-if="mayChange && decision.supersededBy"
        type="button"
        class="quiet small"
        :aria-label="`It holds again: ${decision.number}`"
        @click="supersede({ lineId: decision.lineId, byLineId: null })"
      >
        It holds again
      </button>
      <button
        v-else-if="mayChange && later.length"
        type="button"
        class="quiet small"
        :aria-label="`Supersede: ${decision.number}`"
        :aria-expanded="choosing"
        @click="choosing = !choosing"
      >
        Supersede …
      </button>
      <select
        v-if="choosing"
        :aria-label="`${decision.number} is superseded by`"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option value="">by which decision?</option>
        <option v-for="one in later" :key="one.lineId" :value="one.lineId">{{ one.number }} {{ one.text }}</option>
      </select>
    </span>
    <span class="small">
      <router-link :to="link">{{ mediumDay(decision.decidedOn) }}</router-link><span
        v-if="decision.approved"
        class="fresh strong"
        >, approved</span
      >
    </span>
  </li>
</template>

<style scoped>
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
.over {
  color: var(--soft);
  text-decoration: line-through;
}
select {
  max-width: 100%;
  font: inherit;
  font-size: 0.8571rem;
  color: var(--ink);
  background: var(--sheet);
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
