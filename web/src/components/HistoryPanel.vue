<script setup lang="ts">
import { useHistory, useMails } from '../composables/useHistory'
import { clock, count, mediumDay } from '../time'

const { seriesId } = defineProps<{ seriesId: string }>()
const { events, more, hasMore } = useHistory(() => seriesId)
const { mails, total, more: moreMails, hasMore: hasMoreMails } = useMails(() => seriesId)
const BECAME = { sent: 'handed over', delivered: 'delivered', waiting: 'waiting', failed: 'failed' }
</script>

<template>
  <ol class="ruled history">
    <li v-for="event in events" :key="event.id">
      <span class="soft small">{{ mediumDay(event.localAt) }}, {{ clock(event.localAt) }}</span
      ><span>{{ event.words }}</span
      ><span class="soft small">{{ event.by }}</span>
    </li>
  </ol>
  <p v-if="events?.length === 0" class="soft">Nothing has happened yet.</p>
  <button v-if="hasMore" type="button" class="quiet" @click="more()">Show more</button>
  <details v-if="total" class="mails">
    <summary>{{ count(total, 'mail') }}, and what became of each</summary>
    <ul class="ruled history" aria-label="Mails">
      <li v-for="mail in mails" :key="mail.id">
        <span class="soft small">{{ mediumDay(mail.localAt) }}, {{ clock(mail.localAt) }}</span
        ><span
          >{{ mail.recipient }}{{ mail.way === 'text' ? ', text message' : '' }}: {{ mail.subject
          }}<span v-if="mail.error" class="small alarm"> {{ mail.error }}</span></span
        ><span class="small" :class="mail.state === 'failed' ? 'alarm' : 'soft'">{{ BECAME[mail.state] }}</span>
      </li>
    </ul>
    <button v-if="hasMoreMails" type="button" class="quiet" @click="moreMails()">Show more mails</button>
  </details>
</template>

<style scoped>
ol,
ul {
  padding: 0;
  list-style: none;
}
.mails {
  margin-top: 18px;
}
.mails summary {
  cursor: pointer;
  color: var(--pine);
  font-weight: 600;
}
.history li {
  display: grid;
  grid-template-columns: 190px 1fr auto;
  gap: 14px;
  padding: 5px 0;
}
@media (max-width: 700px) {
  .history li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
