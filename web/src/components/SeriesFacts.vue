<script setup lang="ts">
import type { Series } from '../api/client'
import { useSession } from '../composables/useSession'
import { seatWords } from '../answers'
import { clock, list, mediumDay, ownTime } from '../time'

/** The next meeting of a series, and how it has gone, in numbers. */
defineProps<{ series: Series }>()
const { person: me } = useSession()
</script>

<template>
  <div class="two cards">
    <section class="sheet card next">
      <template v-if="series.next">
        <h2 class="eyebrow">
          Next · {{ mediumDay(series.next.localStart) }}, {{ clock(series.next.localStart)
          }}{{ ownTime(series.next.startsAt, series.next.localStart, me?.timeZone) }}
        </h2>
        <p class="facts">
          <span
            ><b>{{ series.next.leftOver }}</b> left over</span
          >
          <span
            ><b>{{ series.next.plannedMin }}</b> of {{ series.next.lengthMin }} min planned</span
          >
          <span v-if="series.next.signUp">{{ seatWords(series.next.signUpLimit, series.next.coming) }}</span>
          <span v-else
            ><b>{{ series.next.answered }}</b> of {{ series.next.asked }} answered</span
          >
          <span v-if="series.next.away.length" class="alarm"
            ><b>{{ series.next.away.length }}</b> away: {{ list(series.next.away) }}</span
          >
        </p>
      </template>
      <template v-else
        ><h2 class="eyebrow">Next</h2>
        <p class="facts soft">No coming meeting.</p></template
      >
    </section>
    <section v-if="series.figures?.meetings" class="sheet card">
      <h2 class="eyebrow">
        {{ series.figures.meetings === 1 ? 'The last meeting' : `Last ${series.figures.meetings} meetings` }}
      </h2>
      <p class="facts">
        <span
          ><b>{{ series.figures.raised }}</b> raised</span
        ><span
          ><b>{{ series.figures.closed }}</b> closed</span
        >
        <span v-if="series.figures.meetingsToClose !== null"
          ><b>{{ series.figures.meetingsToClose }}</b>
          {{ series.figures.meetingsToClose === 1 ? 'meeting' : 'meetings' }} until closed (median)</span
        >
      </p>
    </section>
  </div>
</template>

<style scoped>
.cards {
  margin: 18px 0 16px;
}
.card {
  padding: 12px 20px;
}
.next {
  border-left: 4px solid var(--gold);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  margin-top: 6px;
}
.facts b {
  font:
    700 1.4286rem 'Bricolage Grotesque Variable',
    sans-serif;
  margin-right: 3px;
}
</style>
