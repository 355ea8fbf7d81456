<script setup lang="ts">
import { useHistory } from '../composables/useAnswers'
import { clock, mediumDay } from '../time'

const { seriesId } = defineProps<{ seriesId: string }>()
const { events, more, hasMore } = useHistory(() => seriesId)
</script>

<template>
  <ol class="ruled history">
    <li v-for="event in events" :key="event.id"><span class="soft small">{{ mediumDay(event.localAt) }}, {{ clock(event.localAt) }}</span><span>{{ event.words }}</span><span class="soft small">{{ event.by }}</span></li>
  </ol>
  <p v-if="events?.length === 0" class="soft">Nothing has happened yet.</p>
  <button v-if="hasMore" type="button" class="quiet" @click="more()">Show more</button>
</template>

<style scoped>
.history li { display: grid; grid-template-columns: 190px 1fr auto; gap: 14px; padding: 5px 0; }
@media (max-width: 700px) { .history li { grid-template-columns: 1fr; gap: 0; } }
</style>
