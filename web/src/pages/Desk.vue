<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Action } from '../api/client'
import CallWords from '../components/CallWords.vue'
import ActionRow from '../components/ActionRow.vue'
import OutsidePanel from '../components/OutsidePanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useActionMoves } from '../composables/useActions'
import { useHolds } from '../composables/useCommonTime'
import { useDesk } from '../composables/useDesk'
import { clock, count, longDay, mediumDay, nearDay } from '../time'

const { desk, error } = useDesk()
const { move } = useActionMoves()
const { release } = useHolds()
const editing = ref<Action | null>(null)
const ActionEdit = defineAsyncComponent(() => import('../components/ActionEdit.vue'))

const ANSWERS = { none: 'not answered yet', accepted: 'you come', tentative: 'you may come', declined: 'you are away' }
const SHEETS = { in_session: 'still in session: close it', closed: 'closed: issue the minutes', planned: 'past and not held: hold it or call it off', issued: '', called_off: '' }

const days = computed(() => {
  const byDay = new Map<string, NonNullable<typeof desk.value>['meetings']>()
  for (const meeting of desk.value?.meetings ?? []) {
    const day = meeting.localStart.slice(0, 10)
    byDay.set(day, [...(byDay.get(day) ?? []), meeting])
  }
  return [...byDay]
})
const waiting = computed(() => (desk.value?.sheets.length ?? 0) + (desk.value?.seriesWithoutMeeting.length ?? 0) + (desk.value?.clashes.length ?? 0) + (desk.value?.holds.length ?? 0))
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <template v-if="desk">
      <p class="eyebrow">Desk · {{ desk.zonePlace }} time</p>
      <h1>{{ longDay(desk.today) }}</h1>
      <div v-if="!desk.anySeries" class="first">
        <div class="sheet stack">
          <h2>Begin with a series</h2>
          <p>A series is a run of meetings under one purpose: who comes, when, and what stays open from one to the next.</p>
          <v-btn to="/series/new">Make a series</v-btn>
        </div>
        <OutsidePanel class="first" />
      </div>
      <div v-else class="two page">
        <div class="stack">
          <section class="sheet" aria-labelledby="left">
            <div class="row spread">
              <h2 id="left">Left over for me</h2>
              <router-link to="/actions" class="small">{{ desk.openActions > desk.actions.length ? `all ${desk.openActions}` : 'all actions' }}</router-link>
            </div>
            <ul v-if="desk.actions.length" class="ruled">
              <ActionRow v-for="action in desk.actions" :key="action.id" :action="action" :today="desk.today" @tick="move({ action, state: 'done' })" @untick="move({ action, state: 'open' })" @change="editing = action" />
            </ul>
            <p v-else class="soft empty">Nothing is left over for you.</p>
          </section>
          <OutsidePanel class="outside" />
        </div>
        <div class="stack side">
          <section v-if="waiting" class="sheet waits" aria-labelledby="waits">
            <h2 id="waits">Waits for you</h2>
            <ul class="ruled">
              <li v-for="sheet in desk.sheets" :key="sheet.id">
                <router-link class="strong" :to="`/meetings/${sheet.id}`">{{ sheet.title }}, {{ mediumDay(sheet.localStart) }}</router-link>
                <p class="small soft">{{ sheet.running ? 'in session now' : SHEETS[sheet.state] }}</p>
              </li>
              <li v-for="series in desk.clashes" :key="`clash-${series.id}`">
                <router-link class="strong" :to="`/series/${series.id}?show=sheets`">{{ series.title }}</router-link>
                <p class="small stuck">{{ count(series.clashes, 'coming meeting') }} {{ series.clashes === 1 ? 'clashes' : 'clash' }}, first {{ mediumDay(series.nextLocalStart) }}: {{ series.names.join(', ') }} busy</p>
              </li>
              <li v-for="hold in desk.holds" :key="hold.id">
                <p><span class="strong">{{ hold.title }}</span> <button type="button" class="quiet small" :aria-label="`Let go: ${hold.title}`" @click="release(hold.id)">Let go</button></p>
                <p class="small soft">held: {{ mediumDay(hold.localStart) }}, {{ clock(hold.localStart) }}<template v-if="hold.place"> · {{ hold.place.name }}</template></p>
              </li>
              <li v-for="series in desk.seriesWithoutMeeting" :key="series.id">
                <router-link class="strong" :to="`/series/${series.id}`">{{ series.title }}</router-link>
                <p class="small soft">has no coming meeting</p>
              </li>
            </ul>
          </section>
          <section aria-labelledby="next">
            <h2 id="next" class="visually-hidden">Next meetings</h2>
            <div v-for="[day, meetings] in days" :key="day" class="day">
              <h3 class="eyebrow">{{ nearDay(day, desk.today) }}</h3>
              <ul>
                <li v-for="meeting in meetings" :key="meeting.id" class="meeting">
                  <span class="time">{{ clock(meeting.localStart) }}</span>
                  <div>
                    <router-link class="strong" :to="meeting.role === 'informed' ? `/series/${meeting.seriesId}` : `/meetings/${meeting.id}`">{{ meeting.title }}</router-link>
                    <p class="small soft">
                      <template v-if="meeting.seriesLocalStart">{{ clock(meeting.seriesLocalStart) }} {{ meeting.seriesZonePlace }} · </template>
                      <template v-if="meeting.role === 'informed'">for information</template>
                      <template v-else><template v-if="meeting.answerAsked || meeting.answer !== 'none'">{{ ANSWERS[meeting.answer] }} · </template>{{ meeting.leftOver ? `${count(meeting.leftOver, 'action')} left over` : 'nothing left over' }}<template v-if="meeting.call?.url"> · <CallWords :call="{ url: meeting.call.url }" /></template></template>
                    </p>
                  </div>
                  <span v-if="meeting.state === 'in_session'" class="small fresh strong">in session</span>
                </li>
              </ul>
            </div>
            <p v-if="days.length === 0" class="soft">No meeting within a week.</p>
          </section>
        </div>
      </div>
      <ActionEdit v-if="editing" v-model="editing" />
    </template>
  </div>
</template>

<style scoped>
.page, .first { margin-top: 20px; }
.first { max-width: 560px; }
h2 { margin-bottom: 6px !important; }
.empty { padding: 8px 0; }
.waits { border-left: 4px solid var(--gold); }
.outside { padding: 0 28px; }
@media (max-width: 700px) { .outside { padding: 0 16px; } }
.day { margin-bottom: 16px; }
.meeting { display: grid; grid-template-columns: 52px 1fr auto; padding: 7px 0; border-top: 1px solid var(--line); }
.time { font-weight: 650; }
.day h3 { margin-bottom: 4px; }
</style>
