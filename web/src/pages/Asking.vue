<script setup lang="ts">
import PageComing from '../components/PageComing.vue'
import { useKeys } from '../composables/useKeys'
import { useTimePolls } from '../composables/useTimePolls'
import { router } from '../router'
import { clock, count, mediumDay } from '../time'

/** The times one has asked for. */
const { polls, error } = useTimePolls()
useKeys([{ key: 'n', label: 'Ask for times', run: () => void router.push('/asking/new') }])
type Row = NonNullable<typeof polls.value>[number]
function standing(poll: Row) {
  if (poll.state === 'settled') return `settled on ${mediumDay(poll.settledLocal!)}, ${clock(poll.settledLocal!)}`
  if (poll.state === 'closed') return 'closed without a time'
  return poll.over ? 'over: settle it' : `closes ${mediumDay(poll.closesLocal)}, ${clock(poll.closesLocal)}`
}
</script>

<template>
  <div class="desk">
    <div class="row spread list-head">
      <h1>Times asked for</h1>
      <v-btn to="/asking/new">Ask for times</v-btn>
    </div>
    <PageComing v-if="!polls" name="This page" :error="error" />
    <div v-else class="sheet">
      <ul v-if="polls.length" class="ruled">
        <li v-for="poll in polls" :key="poll.id" class="line">
          <router-link class="strong" :to="`/asking/${poll.id}`">{{ poll.title }}</router-link>
          <span :class="{ carried: poll.state === 'open' && poll.over }">{{ standing(poll) }}</span>
          <span class="soft small">
            {{ poll.keeper ? `asked for by ${poll.keeper} · ` : '' }}{{ poll.answered }} of {{ poll.asked }} answered ·
            {{ count(poll.times, 'time')
            }}<template v-if="poll.news">
              · <b class="fresh">{{ poll.news }} new</b></template
            >
          </span>
        </li>
      </ul>
      <p v-else>
        Where calendars do not tell, ask: put a few times to people, here or outside, and settle on the one that suits
        most.
      </p>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 2fr);
  gap: 4px 16px;
}
@media (max-width: 760px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
