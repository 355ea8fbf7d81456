<script setup lang="ts">
import { ref } from 'vue'
import { useMeetings } from '../composables/useSeries'
import { clock, count, mediumDay } from '../time'

/** The sheets of a series: the next few and the last few; all of them on demand, and one found by its date. */
const { seriesId, seesSheets } = defineProps<{ seriesId: string; seesSheets: boolean; mayChange?: boolean }>()
const coming = useMeetings(() => seriesId, false)
const gone = useMeetings(() => seriesId, true)
const FEW = 6
const parts = [
  { name: 'To come', list: coming },
  { name: 'Past', list: gone },
]
const all = ref<string[]>([])
const WORDS = {
  planned: 'planned',
  in_session: 'in session',
  closed: 'closed, not issued',
  issued: 'issued',
  called_off: 'called off',
}
type Meetings = NonNullable<typeof coming.meetings.value>
const shown = (name: string, list: Meetings | undefined) => (all.value.includes(name) ? list : list?.slice(0, FEW))
// For information, one sees the minutes once they are issued.
const opens = (meeting: Meetings[number]) => seesSheets || meeting.state === 'issued'
</script>

<template>
  <div class="lists">
    <section v-for="part in parts" :key="part.name">
      <p class="eyebrow">{{ part.name }} · {{ part.list.total.value }}</p>
      <ul class="ruled" :aria-label="part.name">
        <li v-for="meeting in shown(part.name, part.list.meetings.value)" :key="meeting.id" class="line">
          <component
            :is="opens(meeting) ? 'router-link' : 'span'"
            class="strong"
            :to="opens(meeting) ? `/meetings/${meeting.id}` : undefined"
            >{{ mediumDay(meeting.localStart) }} {{ meeting.localStart.slice(0, 4) }},
            {{ clock(meeting.localStart) }}</component
          >
          <span class="soft small"
            ><router-link
              v-if="mayChange && meeting.state === 'planned'"
              :to="`/meetings/${meeting.id}?change=1`"
              :aria-label="`Change ${mediumDay(meeting.localStart)}`"
              >Change</router-link
            >
            <template v-if="meeting.heldOn && meeting.heldOn !== meeting.localStart.slice(0, 10)"
              >held {{ mediumDay(meeting.heldOn) }}, </template
            >{{ WORDS[meeting.state]
            }}<template v-if="meeting.calledOffReason">: {{ meeting.calledOffReason }}</template
            ><template v-if="meeting.decisions">, {{ count(meeting.decisions, 'decision') }}</template
            ><template v-if="meeting.actions">, {{ count(meeting.actions, 'action') }}</template></span
          >
        </li>
      </ul>
      <p v-if="part.list.meetings.value?.length === 0" class="soft">None.</p>
      <button v-if="!all.includes(part.name) && part.list.total.value > FEW" class="quiet" @click="all.push(part.name)">
        All {{ part.list.total.value }}
      </button>
      <button v-else-if="part.list.hasMore.value" class="quiet" @click="part.list.more()">Show more</button>
    </section>
  </div>
  <p class="small soft find">Looking for one? Press <kbd>/</kbd> and type its date, such as “16 nov”.</p>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 36px;
  padding-top: 12px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.find {
  margin-top: 14px;
}
@media (max-width: 860px) {
  .lists {
    grid-template-columns: 1fr;
  }
  .line {
    flex-direction: column;
    gap: 0;
  }
}
</style>
