<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { now as momentNow } from '../present'
import { clock, count, mediumDay, wallNow, wallOf } from '../time'
import SeriesMark from './SeriesMark.vue'
import { ANSWERS } from '../answers'

/** What is on today, with one large way into the one that is next. */
type Meeting = Schemas['Desk']['meetings'][number]
const { meetings, today, timeZone } = defineProps<{ meetings: Meeting[]; today: string; timeZone: string }>()

// Also one that is on now, though it was planned for another day.
const isToday = (meeting: Meeting) => meeting.localStart.startsWith(today) || meeting.state === 'in_session'
const ofToday = computed(() => meetings.filter(isToday))
const now = computed(
  () =>
    ofToday.value.find(meeting => meeting.state === 'in_session') ??
    ofToday.value.find(meeting => meeting.localEnd.slice(0, 16) > wallNow(timeZone) && meeting.answer !== 'declined') ??
    ofToday.value[0],
)
/** Whether one can go into the call now. */
const isOpen = (meeting: Meeting) => meeting.callOpens !== null && Date.parse(meeting.callOpens) <= momentNow()
const opensAt = (meeting: Meeting) => clock(wallOf(meeting.callOpens!, timeZone))
const others = computed(() => ofToday.value.filter(meeting => meeting.id !== now.value?.id))
const next = computed(() => meetings.find(meeting => !isToday(meeting)))
const pageOf = (meeting: Meeting) =>
  meeting.role === 'informed' ? `/series/${meeting.seriesId}` : `/meetings/${meeting.id}`
function about(meeting: Meeting) {
  if (!meeting.told && meeting.runsIt) return 'not invited yet'
  if (meeting.role === 'informed') return 'for information'
  return [
    meeting.answerAsked || meeting.answer !== 'none' ? ANSWERS[meeting.answer].you : '',
    meeting.leftOver ? `${count(meeting.leftOver, 'action')} left over` : '',
  ]
    .filter(Boolean)
    .join(' · ')
}
</script>

<template>
  <section class="sheet today" aria-labelledby="today">
    <h2 id="today">Today</h2>
    <div v-if="now" class="now">
      <div>
        <p v-if="!now.localStart.startsWith(today)" class="small fresh strong">
          in session, planned for {{ mediumDay(now.localStart) }}
        </p>
        <p v-else class="when">
          {{ clock(now.localStart) }}–{{ clock(now.localEnd)
          }}<span v-if="now.state === 'in_session'" class="fresh small strong"> in session</span>
        </p>
        <p class="title">
          <router-link :to="pageOf(now)"><SeriesMark :mark="now.mark" />{{ now.title }}</router-link>
        </p>
        <p class="small soft">
          <template v-if="now.seriesLocalStart"
            >{{ clock(now.seriesLocalStart) }} in {{ now.seriesZoneCity }} · </template
          ><template v-if="now.place">{{ now.place }} · </template>{{ about(now) }}
        </p>
        <p v-if="now.inCall" class="fresh strong" role="status">
          {{ now.inCall }} {{ now.inCall === 1 ? 'is' : 'are' }} in the call
        </p>
        <p v-else-if="now.callOpens && !isOpen(now)" class="small soft">The call opens at {{ opensAt(now) }}.</p>
      </div>
      <div class="row way">
        <v-btn
          v-if="now.call?.url"
          size="large"
          :variant="isOpen(now) ? 'flat' : 'outlined'"
          :href="now.call.url"
          target="_blank"
          rel="noopener noreferrer"
          >Join the call</v-btn
        >
        <v-btn size="large" :variant="isOpen(now) ? 'outlined' : 'flat'" :to="pageOf(now)">{{
          now.role === 'informed' ? 'Open the series' : 'Open the sheet'
        }}</v-btn>
      </div>
    </div>
    <p v-else class="soft">
      Nothing today.<template v-if="next">
        Next is {{ next.title }} on {{ mediumDay(next.localStart) }} at {{ clock(next.localStart) }}.</template
      >
    </p>
    <ul v-if="others.length" class="ruled">
      <li v-for="meeting in others" :key="meeting.id">
        <b>{{ clock(meeting.localStart) }}</b>
        <router-link :to="pageOf(meeting)"><SeriesMark :mark="meeting.mark" />{{ meeting.title }}</router-link> {{ ' '
        }}<span class="small soft">{{ about(meeting) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.now {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 6px;
}
.when {
  font:
    700 1.5714rem 'Bricolage Grotesque Variable',
    sans-serif;
}
.title {
  font-size: 1.2143rem;
  font-weight: 650;
  overflow-wrap: anywhere;
}
.way {
  align-items: center;
}
ul {
  margin-top: 10px;
}
</style>
