<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { mdiDotsHorizontal } from '@mdi/js'
import AnswersPanel from '../components/AnswersPanel.vue'
import DecisionsPanel from '../components/DecisionsPanel.vue'
import HistoryPanel from '../components/HistoryPanel.vue'
import RunChange from '../components/RunChange.vue'
import { useRunChange } from '../composables/useRunChange'
import InvitationDialog from '../components/InvitationDialog.vue'
import LeaveSeries from '../components/LeaveSeries.vue'
import MemberList from '../components/MemberList.vue'
import MeetingList from '../components/MeetingList.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SeriesAbout from '../components/SeriesAbout.vue'
import SeriesEnding from '../components/SeriesEnding.vue'
import SeriesCallPanel from '../components/SeriesCallPanel.vue'
import SeriesEdit from '../components/SeriesEdit.vue'
import SeriesFacts from '../components/SeriesFacts.vue'
import SeriesPause from '../components/SeriesPause.vue'
import SeriesUntold from '../components/SeriesUntold.vue'
import StandingAgendaPanel from '../components/StandingAgendaPanel.vue'
import StillHolds from '../components/StillHolds.vue'
import StrandsPanel from '../components/StrandsPanel.vue'
import { useNotice } from '../composables/useNotice'
import { useKeys } from '../composables/useKeys'
import { useDeleteSeries, useSeries } from '../composables/useSeries'
import { isOurs } from '../calls'
import { mediumDay } from '../time'
import { useTitle } from '../composables/useTitle'

const { id } = defineProps<{ id: string }>()
const { series, error } = useSeries(() => id)
useTitle(() => series.value?.title)
const seesSheets = computed(() => series.value?.may.seeSheets ?? false)
const router = useRouter()

const TABS = ['Strands', 'Sheets', 'Agenda', 'Decisions', 'Answers', 'People', 'Call', 'History'] as const
const RUNNING = ['Answers', 'History']
const HEADINGS: Partial<Record<(typeof TABS)[number], string>> = {
  Strands: 'What carries over',
  Agenda: 'Standing agenda',
}
const route = useRoute()
const tab = ref<(typeof TABS)[number]>(TABS.find(name => name.toLowerCase() === route.query.show) ?? 'Strands')
const shown = computed(() => (seesSheets.value ? tab.value : tab.value === 'People' ? 'People' : 'Sheets'))
const editing = ref(false)
const inviting = ref(false)
const ending = ref(false)
const pausing = ref(false)
/** From a sheet that is made a series one comes for this; a reload is not to ask again. */
const retiming = ref(route.query.change === 'times')
const repeating = retiming.value
if (retiming.value) router.replace({ query: {} })
const { bringBack } = useRunChange(() => id)
const deed = ref<'change' | 'off'>('change')
function retime(what: 'change' | 'off') {
  deed.value = what
  retiming.value = true
}
const startNow = computed(() => ({
  path: '/now',
  query: {
    title: series.value?.title,
    with: series.value?.members.filter(one => !one.guest && one.role === 'required').map(one => one.personId),
  },
}))
const { remove: removeSeries } = useDeleteSeries()
const { say, complain } = useNotice()
async function remove() {
  try {
    await removeSeries(id)
    say(`“${series.value!.title}” is deleted.`)
    router.push('/series')
  } catch (fault) {
    complain(fault as Error)
  }
}

useKeys([
  {
    key: 'o',
    label: 'Open the next sheet',
    when: () => !!series.value?.next && seesSheets.value,
    run: () => router.push(`/meetings/${series.value!.next!.id}`),
  },
  {
    key: 'i',
    label: 'Send the invitation',
    when: () => !!series.value?.may.change && !series.value.outside,
    run: () => {
      inviting.value = true
    },
  },
  {
    key: 'c',
    label: 'Edit the series',
    when: () => !!series.value?.may.change,
    run: () => {
      editing.value = true
    },
  },
])
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <template v-if="series">
      <div class="row spread head">
        <SeriesAbout :series="series" />
        <div class="row buttons">
          <v-btn v-if="series.may.change" variant="outlined" @click="editing = true">Edit the series</v-btn>
          <v-btn v-if="series.may.change && !series.outside" variant="outlined" @click="retime('change')"
            >Change the times</v-btn
          >
          <v-btn
            v-if="series.may.change && !series.outside"
            :variant="series.told.state === 'told' ? 'outlined' : 'flat'"
            @click="inviting = true"
            >Send the invitation</v-btn
          >
          <v-btn
            v-if="series.answerPath && !series.may.change"
            :variant="seesSheets ? 'outlined' : 'flat'"
            :href="series.answerPath"
            >{{ seesSheets ? 'Answer' : 'Agenda, papers and dates' }}</v-btn
          >
          <v-btn v-if="series.next && seesSheets" :to="`/meetings/${series.next.id}`">Open next sheet</v-btn>
          <v-menu v-if="series.may.change && !series.outside">
            <template #activator="{ props: menu }"
              ><v-btn
                v-bind="menu"
                variant="text"
                :icon="mdiDotsHorizontal"
                size="small"
                aria-label="More to do with this series"
            /></template>
            <v-list density="compact" aria-label="More to do with this series">
              <v-list-item title="Again, like this" :to="{ path: '/series/new', query: { like: id } }" />
              <v-list-item title="Ask for times" :to="{ path: '/asking/new', query: { series: id } }" />
              <v-list-item title="Start one now with these people" :to="startNow" />
              <v-list-item title="Everything as a zip file" :href="`/api/series/${id}/archive.zip`" download />
              <v-list-item v-if="series.next" title="Call off later meetings …" @click="retime('off')" />
              <v-list-item v-if="series.next" title="Pause the series …" @click="pausing = true" />
              <v-list-item title="End the series …" @click="ending = true" />
              <v-list-item v-if="series.may.delete" title="Delete the series" @click="remove()" />
            </v-list>
          </v-menu>
        </div>
      </div>
      <SeriesUntold v-if="series.may.change" :told="series.told" />
      <p v-if="series.endedFrom && series.may.change" class="untold">
        All meetings from {{ mediumDay(series.endedFrom) }} on are called off.
        <button type="button" class="quiet" @click="bringBack()">Bring them back</button>
      </p>
      <SeriesFacts v-if="series.next || series.figures" :series="series" />
      <section class="sheet whole" aria-label="The series">
        <div class="row spread">
          <h2>{{ HEADINGS[shown] ?? shown }}</h2>
          <div class="row tabs" role="group" aria-label="Show">
            <template v-for="name in TABS" :key="name">
              <button
                v-if="
                  (!['Strands', 'Agenda', 'Decisions', 'Call'].includes(name) || seesSheets) &&
                  (name !== 'Call' || isOurs(series.callKind)) &&
                  (!RUNNING.includes(name) || series.may.change)
                "
                class="quiet"
                :class="{ on: shown === name }"
                :aria-pressed="shown === name"
                @click="tab = name"
              >
                {{ name }}
              </button>
            </template>
          </div>
        </div>
        <StrandsPanel v-if="shown === 'Strands'" :key="id" :series-id="id" :figures="series.figures" class="picture" />
        <MeetingList
          v-if="shown === 'Sheets'"
          :series-id="id"
          :sees-sheets="seesSheets"
          :may-change="series.may.change && !series.outside"
        />
        <StandingAgendaPanel v-if="shown === 'Agenda'" :series-id="id" :may-change="series.may.change" />
        <DecisionsPanel v-if="shown === 'Decisions'" :series-id="id" :may-change="series.may.change" />
        <AnswersPanel v-if="shown === 'Answers'" :series-id="id" class="picture" />
        <HistoryPanel v-if="shown === 'History'" :series-id="id" />
        <StillHolds v-if="shown === 'Sheets' && series.may.change" :series-id="id" />
        <SeriesCallPanel v-if="shown === 'Call'" :key="id" :series="series" />
        <template v-if="shown === 'People'">
          <MemberList :series="series" />
          <LeaveSeries :series="series" />
        </template>
      </section>
      <RunChange v-model="retiming" :series="series" :begin-with="deed" :repeating="repeating" />
      <SeriesEdit v-model="editing" :series="series" />
      <SeriesEnding v-model="ending" :series="series" />
      <SeriesPause v-model="pausing" :series="series" />
      <InvitationDialog v-model="inviting" :series-id="id" />
    </template>
  </div>
</template>

<style scoped>
.head {
  align-items: flex-end;
}
.head > div:first-child {
  flex: 1 1 480px;
}
.buttons {
  align-items: center;
}
.untold {
  margin-top: 12px;
  padding: 8px 14px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
}
.whole {
  margin-top: 16px;
}
.tabs .quiet {
  color: var(--soft);
}
.tabs .on {
  color: var(--pine);
  font-weight: 700;
}
.picture {
  margin-top: 16px;
}
</style>
