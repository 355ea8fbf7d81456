<script setup lang="ts">
import type { Schemas } from '../api/client'
import { useAnswerDeeds } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { clock, mediumDay } from '../time'

/** Another time that somebody offers for a meeting, to be taken or turned down. */
const { offered, seriesId } = defineProps<{ offered: Schemas['OfferedTime']; seriesId: string }>()
const { settle } = useAnswerDeeds(() => seriesId)
const { say, complain } = useNotice()

async function take(yes: boolean) {
  await settle({ id: offered.id, take: yes }).catch(complain)
  say(
    yes
      ? 'The meeting is moved there. Nobody is told yet.'
      : `${offered.person.name} is told that it stays where it is.`,
  )
}
</script>

<template>
  <section class="offered">
    <p>
      <b>{{ offered.person.name }}</b> offers {{ mediumDay(offered.localStart) }}, {{ clock(offered.localStart) }}–{{
        clock(offered.localEnd)
      }}
      instead of {{ mediumDay(offered.meetingLocalStart)
      }}<template v-if="offered.note">: “{{ offered.note }}”</template>.
      <span class="soft">{{ offered.fit }} then.</span>
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
            meeting: offered.meetingId,
            version: offered.version,
            day: offered.localStart.slice(0, 10),
            at: offered.startsAt,
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
