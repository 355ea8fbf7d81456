<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { clock, count, list, mediumDay } from '../time'
import { useNotices } from '../composables/useDesk'
import EmptyMeeting from './EmptyMeeting.vue'
import FailedMail from './FailedMail.vue'
import HoldRow from './HoldRow.vue'

/** What is waiting for somebody who runs series. */
const { desk } = defineProps<{ desk: Schemas['Desk'] }>()
const SHEETS = {
  in_session: 'still in session: close it',
  closed: 'closed: issue the minutes',
  planned: 'past and not held: hold it or call it off',
  issued: '',
  called_off: '',
}
const { putAside } = useNotices()
/** One that is on stands under Today. */
const sheets = computed(() => desk.sheets.filter(one => !one.running || !desk.meetings.some(({ id }) => id === one.id)))
const waiting = computed(
  () =>
    sheets.value.length +
    desk.unanswered.length +
    desk.missed.length +
    desk.seriesWithoutMeeting.length +
    desk.clashes.length +
    desk.holds.length +
    desk.offers.length +
    desk.refusals.length +
    desk.emptyMeetings.length +
    desk.preparations.length +
    desk.polls.length +
    desk.hostings.length +
    desk.failedMails.length,
)
</script>

<template>
  <section v-if="waiting" class="sheet waits" aria-labelledby="waits">
    <h2 id="waits">Waiting for you</h2>
    <ul class="ruled">
      <li v-for="sheet in sheets" :key="sheet.id">
        <router-link class="strong" :to="`/meetings/${sheet.id}`"
          >{{ sheet.title }}, {{ mediumDay(sheet.localStart) }}</router-link
        >
        <p class="small soft">{{ sheet.running ? 'in session now' : SHEETS[sheet.state] }}</p>
      </li>
      <li v-for="series in desk.unanswered" :key="`open-${series.id}`">
        <a class="strong" :href="series.path">{{ series.title }}</a>
        <p class="small soft">
          you have not answered for {{ count(series.meetings, 'meeting') }}, first {{ mediumDay(series.localStart) }}
        </p>
      </li>
      <li v-for="series in desk.missed" :key="`missed-${series.seriesId}`">
        <router-link class="strong" :to="`/series/${series.seriesId}/catching-up`">{{ series.title }}</router-link>
        <p class="small soft">
          {{ count(series.meetings, 'meeting') }} without you, last {{ mediumDay(series.on) }}: catch up
          <button
            type="button"
            class="quiet small seen"
            :aria-label="`Seen: missed meetings of ${series.title}`"
            @click="putAside(series.notice)"
          >
            Seen
          </button>
        </p>
      </li>
      <li v-for="offer in desk.offers" :key="offer.id">
        <router-link class="strong" :to="`/series/${offer.seriesId}?show=answers`">{{ offer.title }}</router-link>
        <p class="small soft">
          {{ offer.name }} offers {{ mediumDay(offer.localStart) }}, {{ clock(offer.localStart) }} instead of
          {{ mediumDay(offer.meetingLocalStart) }}
        </p>
      </li>
      <li v-for="refusal in desk.refusals" :key="refusal.meetingId + refusal.name">
        <router-link class="strong" :to="`/series/${refusal.seriesId}?show=answers`">{{ refusal.title }}</router-link>
        <p class="small soft">
          {{ refusal.name }} cannot come on {{ mediumDay(refusal.localStart)
          }}<template v-if="refusal.note">: “{{ refusal.note }}”</template>
          <button
            type="button"
            class="quiet small seen"
            :aria-label="`Seen: ${refusal.name} cannot come, ${refusal.title}`"
            @click="putAside(refusal.notice)"
          >
            Seen
          </button>
        </p>
      </li>
      <li v-for="series in desk.clashes" :key="`clash-${series.id}`">
        <router-link class="strong" :to="`/series/${series.id}?show=sheets`">{{ series.title }}</router-link>
        <p class="small alarm">
          {{ count(series.clashes, 'coming meeting') }} {{ series.clashes === 1 ? 'clashes' : 'clash' }}, first
          {{ mediumDay(series.nextLocalStart) }}: {{ list(series.names) }}
          {{ series.names.length === 1 ? 'is' : 'are' }} busy
          <button
            type="button"
            class="quiet small seen"
            :aria-label="`Seen: clashes of ${series.title}`"
            @click="putAside(series.notice)"
          >
            Seen
          </button>
        </p>
      </li>
      <li v-for="one in desk.preparations" :key="one.meetingId + one.place">
        <router-link class="strong" :to="`/meetings/${one.meetingId}`"
          >{{ one.title }}, {{ mediumDay(one.localStart) }}</router-link
        >
        <p class="small alarm">
          {{ one.place }} {{ one.state === 'refused' ? 'cannot be prepared' : 'has not been confirmed'
          }}<template v-if="one.word">: “{{ one.word }}”</template>
        </p>
      </li>
      <li v-for="poll in desk.polls" :key="poll.id">
        <router-link class="strong" :to="`/asking/${poll.id}`">{{ poll.title }}</router-link>
        <p class="small" :class="poll.over ? 'carried' : 'soft'">
          times {{ poll.keeper ? `${poll.keeper} asked for` : 'asked for' }}: {{ poll.answered }} of
          {{ poll.asked }} have answered{{ poll.news ? `, ${poll.news} new` : '' }}{{ poll.over ? '; settle it' : '' }}
        </p>
      </li>
      <li v-for="one in desk.hostings" :key="one.id">
        <router-link class="strong" to="/open-hours">{{ one.title }}</router-link>
        <p class="small soft">{{ one.keeper }} asks you to be a host of these open hours: agree, or say no</p>
      </li>
      <EmptyMeeting v-for="meeting in desk.emptyMeetings" :key="`empty-${meeting.meetingId}`" :meeting="meeting" />
      <FailedMail v-for="mail in desk.failedMails" :key="mail.seriesId + mail.email" :mail="mail" />
      <HoldRow v-for="hold in desk.holds" :key="hold.id" :hold="hold" />
      <li v-for="series in desk.seriesWithoutMeeting" :key="series.id">
        <router-link class="strong" :to="`/series/${series.id}`">{{ series.title }}</router-link>
        <p class="small soft">
          has no coming meeting: its dates are over
          <button
            type="button"
            class="quiet small seen"
            :aria-label="`Seen: ${series.title}`"
            @click="putAside(series.notice)"
          >
            Seen
          </button>
        </p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.waits {
  border-left: 4px solid var(--gold);
}
h2 {
  margin-bottom: 6px;
}
.seen {
  margin-left: 8px;
}
</style>
