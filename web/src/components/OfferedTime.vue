<script setup lang="ts">
import type { Schemas } from '../api/client'
import { useAnswerDeeds } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { clock, mediumDay } from '../time'

/** Another time that somebody offers for a meeting, to be taken or turned down. */
const { counter, seriesId } = defineProps<{ counter: Schemas['Counter']; seriesId: string }>()
const { settle } = useAnswerDeeds(() => seriesId)
const { say, complain } = useNotice()

async function take(yes: boolean) {
  await settle({ id: counter.id, take: yes }).catch(complain)
  say(
    yes
      ? 'The meeting is moved there. Nobody is told yet.'
      : `${counter.person.name} is told that it stays where it is.`,
  )
}
</script>

<template>
  <section class="offered">
    <p>
      <b>{{ counter.person.name }}</b> offers {{ mediumDay(counter.localStart) }}, {{ clock(counter.localStart) }}–{{
        clock(counter.localEnd)
      }}
      instead of {{ mediumDay(counter.meetingLocalStart)
      }}<template v-if="counter.note">: “{{ counter.note }}”</template>.
      <span class="soft">{{ counter.fit }} then.</span>
    </p>
    <p class="row">
      <v-btn size="small" @click="take(true)">Take it</v-btn
      ><v-btn size="small" variant="outlined" @click="take(false)">Turn it down</v-btn
      ><router-link
        class="small"
        :to="{
          path: '/common-time',
          query: {
            series: seriesId,
            meeting: counter.meetingId,
            version: counter.version,
            day: counter.localStart.slice(0, 10),
            at: counter.startsAt,
          },
        }"
        >See it beside everyone's calendars</router-link
      >
    </p>
  </section>
</template>

<style scoped>
.offered {
  padding: 10px 14px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
  display: grid;
  gap: 8px;
}
</style>
