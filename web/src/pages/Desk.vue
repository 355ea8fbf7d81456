<script setup lang="ts">
import SeriesMark from '../components/SeriesMark.vue'
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Action } from '../api/client'
import CallWords from '../components/CallWords.vue'
import ActionRow from '../components/ActionRow.vue'
import FirstSteps from '../components/FirstSteps.vue'
import OutsidePanel from '../components/OutsidePanel.vue'
import PageComing from '../components/PageComing.vue'
import TodayPanel from '../components/TodayPanel.vue'
import UntoldList from '../components/UntoldList.vue'
import WaitingList from '../components/WaitingList.vue'
import { useActionMoves } from '../composables/useActions'
import { useDesk } from '../composables/useDesk'
import { useSession } from '../composables/useSession'
import { clock, count, longDay, nearDay } from '../time'
import { ANSWERS } from '../answers'

const { desk, error } = useDesk()
const { person: me } = useSession()
const { move } = useActionMoves()
const editing = ref<Action | null>(null)
const ActionEdit = defineAsyncComponent(() => import('../components/ActionEdit.vue'))

/** The week after today, day by day. */
const days = computed(() => {
  const byDay = new Map<string, NonNullable<typeof desk.value>['meetings']>()
  for (const meeting of desk.value?.meetings ?? []) {
    const day = meeting.localStart.slice(0, 10)
    if (day > desk.value!.today) byDay.set(day, [...(byDay.get(day) ?? []), meeting])
  }
  return [...byDay]
})
</script>

<template>
  <div class="desk">
    <PageComing v-if="!desk" name="Desk" :error="error" />
    <template v-else>
      <p class="eyebrow">Desk · {{ desk.zoneCity }} time</p>
      <div class="row spread">
        <h1>{{ longDay(desk.today) }}</h1>
        <v-btn v-if="desk.anySeries" variant="text" to="/now">Start one now</v-btn>
      </div>
      <div class="two page">
        <div class="stack">
          <FirstSteps v-if="desk.firstSteps" :steps="desk.firstSteps" :me="me!.id" />
          <UntoldList :untold="desk.untold" />
          <TodayPanel v-if="desk.anySeries" :meetings="desk.meetings" :today="desk.today" :time-zone="me!.timeZone" />
          <div v-else-if="!desk.firstSteps" class="sheet stack">
            <h2>Begin with a series</h2>
            <p>
              A series is a run of meetings under one purpose: who comes, when, and what stays open from one to the
              next.
            </p>
            <v-btn to="/series/new">New series</v-btn>
          </div>
          <WaitingList :desk="desk" />
          <section v-if="desk.anySeries" class="sheet" aria-labelledby="left">
            <div class="row spread">
              <h2 id="left">Left over for me</h2>
              <router-link to="/actions" class="small">{{
                desk.openActions > desk.actions.length ? `All ${desk.openActions}` : 'All actions'
              }}</router-link>
            </div>
            <ul v-if="desk.actions.length" class="ruled">
              <ActionRow
                v-for="action in desk.actions"
                :key="action.id"
                :action="action"
                :today="desk.today"
                @tick="move({ action, state: 'done' })"
                @untick="move({ action, state: 'open' })"
                @change="editing = action"
              />
            </ul>
            <p v-else class="soft empty">Nothing is left over for you.</p>
          </section>
        </div>
        <div class="stack side">
          <section v-if="desk.anySeries" aria-labelledby="next">
            <h2 id="next">The week ahead</h2>
            <div v-for="[day, meetings] in days" :key="day" class="day">
              <h3 class="eyebrow">{{ nearDay(day, desk.today) }}</h3>
              <ul>
                <li v-for="meeting in meetings" :key="meeting.id" class="meeting">
                  <span class="time">{{ clock(meeting.localStart) }}</span>
                  <div>
                    <router-link
                      class="strong"
                      :to="meeting.role === 'informed' ? `/series/${meeting.seriesId}` : `/meetings/${meeting.id}`"
                      ><SeriesMark :mark="meeting.mark" />{{ meeting.title }}</router-link
                    >
                    <p class="small soft">
                      <template v-if="meeting.seriesLocalStart"
                        >{{ clock(meeting.seriesLocalStart) }} in {{ meeting.seriesZoneCity }} ·
                      </template>
                      <template v-if="!meeting.told && meeting.runsIt"
                        ><span class="carried">not invited yet</span></template
                      >
                      <template v-else-if="meeting.role === 'informed'">for information</template>
                      <template v-else
                        ><template v-if="meeting.answerAsked || meeting.answer !== 'none'"
                          >{{ ANSWERS[meeting.answer].you }} · </template
                        >{{ meeting.leftOver ? `${count(meeting.leftOver, 'action')} left over` : 'nothing left over'
                        }}<template v-if="meeting.call?.url">
                          · <CallWords :call="{ url: meeting.call.url }" /></template
                      ></template>
                    </p>
                  </div>
                </li>
              </ul>
            </div>
            <p v-if="days.length === 0" class="soft">No other meeting within a week.</p>
          </section>
          <OutsidePanel />
        </div>
      </div>
      <ActionEdit v-if="editing" v-model="editing" />
    </template>
  </div>
</template>

<style scoped>
.page {
  margin-top: 18px;
}
.side h2 {
  margin-bottom: 8px;
}
.empty {
  padding: 8px 0;
}
.day {
  margin-bottom: 16px;
}
.meeting {
  display: grid;
  grid-template-columns: 52px 1fr;
  padding: 7px 0;
  border-top: 1px solid var(--line);
}
.time {
  font-weight: 650;
}
.day h3 {
  margin-bottom: 4px;
}
</style>
