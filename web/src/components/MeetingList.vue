<script setup lang="ts">
import { useMeetings } from '../composables/useSeries'
import { clock, count, mediumDay } from '../time'

/** The sheets of a series: those to come, then those gone. */
const { seriesId } = defineProps<{ seriesId: string }>()
const coming = useMeetings(() => seriesId, false)
const gone = useMeetings(() => seriesId, true)
const parts = [{ name: 'To come', list: coming }, { name: 'Past', list: gone }]
const WORDS = { planned: 'planned', in_session: 'in session', closed: 'closed, not issued', issued: 'issued', called_off: 'called off' }
</script>

<template>
  <div class="lists">
    <section v-for="part in parts" :key="part.name">
      <p class="eyebrow">{{ part.name }} · {{ part.list.total.value }}</p>
      <ul class="ruled" :aria-label="part.name">
        <li v-for="meeting in part.list.meetings.value" :key="meeting.id" class="line">
          <router-link class="strong" :to="`/meetings/${meeting.id}`">{{ mediumDay(meeting.localStart) }} {{ meeting.localStart.slice(0, 4) }}, {{ clock(meeting.localStart) }}</router-link>
          <span class="soft small">{{ WORDS[meeting.state] }}<template v-if="meeting.calledOffReason">: {{ meeting.calledOffReason }}</template><template v-if="meeting.decisions">, {{ count(meeting.decisions, 'decision') }}</template><template v-if="meeting.actions">, {{ count(meeting.actions, 'action') }}</template></span>
        </li>
      </ul>
      <p v-if="part.list.meetings.value?.length === 0" class="soft">None.</p>
      <button v-if="part.list.hasMore.value" class="quiet" @click="part.list.more()">Show more</button>
    </section>
  </div>
</template>

<style scoped>
.lists { display: grid; grid-template-columns: 1fr 1fr; gap: 36px; padding-top: 12px; }
.line { display: flex; justify-content: space-between; gap: 12px; }
@media (max-width: 860px) { .lists { grid-template-columns: 1fr; } .line { flex-direction: column; gap: 0; } }
</style>
