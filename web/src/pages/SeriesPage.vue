<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { mdiDotsHorizontal } from '@mdi/js'
import CallWords from '../components/CallWords.vue'
import AnswersPanel from '../components/AnswersPanel.vue'
import DecisionsPanel from '../components/DecisionsPanel.vue'
import HistoryPanel from '../components/HistoryPanel.vue'
import RunChange from '../components/RunChange.vue'
import { useRunChange } from '../composables/useAnswers'
import InvitationDialog from '../components/InvitationDialog.vue'
import MeetingList from '../components/MeetingList.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SeriesEdit from '../components/SeriesEdit.vue'
import StillHolds from '../components/StillHolds.vue'
import Strands from '../components/Strands.vue'
import { useNotice } from '../composables/useNotice'
import { useSession } from '../composables/useSession'
import { useKeys } from '../composables/useKeys'
import { useDeleteSeries, useSeries, useStrands } from '../composables/useSeries'
import { clock, ownTime, wallNow, columnDay, count, list, mediumDay, zonePlace } from '../time'

const { id } = defineProps<{ id: string }>()
const { series, error } = useSeries(() => id)
const { person: me } = useSession()
const seesSheets = computed(() => series.value?.may.seeSheets ?? false)
const { strands } = useStrands(() => id, seesSheets)
const router = useRouter()

const TABS = ['Strands', 'Sheets', 'Decisions', 'Answers', 'People', 'History'] as const
const RUNNING = ['Answers', 'History']
const route = useRoute()
const tab = ref<(typeof TABS)[number]>(TABS.find(name => name.toLowerCase() === route.query.show) ?? 'Strands')
const shown = computed(() => (seesSheets.value ? tab.value : tab.value === 'People' ? 'People' : 'Sheets'))
const editing = ref(false)
const inviting = ref(false)
const retiming = ref(false)
const { bringBack } = useRunChange(() => id)
const deed = ref<'change' | 'off'>('change')
function retime(what: 'change' | 'off') {
  deed.value = what
  retiming.value = true
}
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
const groupName = (groupId: string) => series.value?.groups.find(group => group.id === groupId)?.name ?? ''
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
const people = computed(() => {
  const informed = series.value?.members.filter(member => member.role === 'informed').length ?? 0
  const coming = count((series.value?.members.length ?? 0) - informed, 'person')
  return informed ? `${coming}, ${informed} for information` : coming
})
const persons = (number: number) => count(number, 'person')
const untoldWords = computed(() => {
  const untold = series.value?.told.untold
  if (!untold) return ''
  const changed = untold.people - untold.invited - untold.takenOff - untold.calledOff - untold.broughtBack
  const said: [number, string][] = [
    [untold.invited, 'to invite'],
    [changed, 'to tell of changes'],
    [untold.calledOff, 'to tell that it is called off'],
    [untold.broughtBack, 'to tell that it takes place after all'],
    [untold.takenOff, 'to tell not to come'],
  ]
  return list(said.filter(([number]) => number > 0).map(([number, words]) => `${persons(number)} ${words}`))
})
const told = computed(
  () =>
    ({
      never: 'Nobody has been told of this series yet.',
      changed: `Not everything has been told yet: ${untoldWords.value}.`,
      told: '',
    })[series.value?.told.state ?? 'told'],
)

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
    label: 'Edit title and people',
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
        <div>
          <p class="eyebrow">
            {{ !series.howOften ? 'On' : series.since > wallNow(series.timeZone).slice(0, 10) ? 'From' : 'Since' }}
            {{ columnDay(series.since) }} {{ series.since.slice(0, 4) }}
          </p>
          <h1>{{ series.title }}</h1>
          <p class="soft about">
            {{ series.sentence }}<template v-if="series.location"> · {{ series.location }}</template
            ><template v-if="series.alsoHeld.length">
              with {{ list(series.alsoHeld.map(place => place.name)) }}</template
            ><template v-if="series.call"> · <CallWords :call="series.call" /></template> · {{ people }} · kept by
            <span class="strong ink">{{ series.keeper.name }}</span>
          </p>
          <p v-if="series.outside" class="soft about">
            {{ series.outside }} invites to it, elsewhere. Its dates go where that invitation goes.
          </p>
          <p v-if="series.purpose" class="soft about">{{ series.purpose }}</p>
        </div>
        <div class="row buttons">
          <v-btn v-if="series.may.change" variant="outlined" @click="editing = true">Edit title and people</v-btn>
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
              <v-list-item v-if="series.next" title="End the series …" @click="retime('off')" />
              <v-list-item v-if="series.may.delete" title="Delete the series" @click="remove()" />
              <v-list-item v-if="!series.next && !series.may.delete" title="The series has ended" disabled />
            </v-list>
          </v-menu>
        </div>
      </div>
      <div v-if="told && series.may.change" class="untold" role="status">
        <p>{{ told }}</p>
        <ul v-if="series.told.untold?.changes.length" class="small">
          <li v-for="change in series.told.untold.changes" :key="change.label + change.before">
            <b>{{ change.label }}</b> <del v-if="change.before" class="soft">{{ change.before }}</del>
            {{ change.after ?? 'none' }}
          </li>
        </ul>
      </div>
      <p v-if="series.endedFrom && series.may.change" class="untold">
        All meetings from {{ mediumDay(series.endedFrom) }} on are called off.
        <button type="button" class="quiet" @click="bringBack()">Bring them back</button>
      </p>
      <div v-if="series.next || series.figures" class="two cards">
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
              <span
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
          <h2 class="eyebrow">Last {{ count(series.figures.meetings, 'meeting') }}</h2>
          <p class="facts">
            <span
              ><b>{{ series.figures.raised }}</b> raised</span
            ><span
              ><b>{{ series.figures.closed }}</b> closed</span
            >
            <span v-if="series.figures.meetingsToClose !== null"
              ><b>{{ series.figures.meetingsToClose }}</b>
              {{ series.figures.meetingsToClose === 1 ? 'meeting' : 'meetings' }} to close</span
            >
          </p>
        </section>
      </div>
      <section class="sheet whole" aria-label="The series">
        <div class="row spread">
          <div v-if="shown === 'Strands'" class="row">
            <h2>What carries over</h2>
            <p class="legend small soft">
              <i class="new" /> new <i class="car" /> carried 1–{{ (strands?.stuckAt ?? 3) - 1 }} times
              <i class="stu" /> stuck, {{ strands?.stuckAt ?? 3 }} or more: do it, split it or drop it
            </p>
          </div>
          <h2 v-else>{{ shown }}</h2>
          <div class="row tabs" role="group" aria-label="Show">
            <template v-for="name in TABS" :key="name">
              <button
                v-if="
                  (!['Strands', 'Decisions'].includes(name) || seesSheets) &&
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
        <Strands v-if="shown === 'Strands' && strands" :strands="strands" class="picture" />
        <MeetingList
          v-if="shown === 'Sheets'"
          :series-id="id"
          :sees-sheets="seesSheets"
          :may-change="series.may.change && !series.outside"
        />
        <DecisionsPanel v-if="shown === 'Decisions'" :series-id="id" />
        <AnswersPanel v-if="shown === 'Answers'" :series-id="id" class="picture" />
        <HistoryPanel v-if="shown === 'History'" :series-id="id" />
        <StillHolds v-if="shown === 'Sheets' && series.may.change" :series-id="id" />
        <ul v-if="shown === 'People'" class="ruled members">
          <li v-for="member in series.members" :key="member.personId" class="row">
            <span class="strong name">{{ member.name }}</span><span
              >{{ ROLES[member.role] }}<template v-if="member.guest">, guest</template
              ><template v-if="member.viaGroupId"
                >, through the group {{ groupName(member.viaGroupId) }}</template
              ></span
            ><span class="soft">{{ zonePlace(member.timeZone) }} time</span>
            <span v-if="member.personId === series.keeper.id" class="soft">keeper</span
            ><span v-if="member.personId === series.chair.id" class="soft">chair</span>
          </li>
        </ul>
      </section>
      <RunChange v-model="retiming" :series="series" :begin-with="deed" />
      <SeriesEdit v-model="editing" :series="series" />
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
.about {
  margin-top: 6px;
  max-width: 80ch;
}
.ink {
  color: var(--ink);
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
.cards {
  margin: 18px 0 16px;
}
.card {
  padding: 12px 20px;
}
.whole {
  margin-top: 16px;
}
.next {
  border-left: 4px solid var(--gold);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  margin-top: 6px !important;
}
.facts b {
  font:
    700 1.4286rem 'Bricolage Grotesque Variable',
    sans-serif;
  margin-right: 3px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 4px;
  margin: 0 3px 2px 12px;
}
.legend .new {
  height: 2px;
  background: var(--fresh);
}
.legend .car {
  background: var(--carried);
}
.legend .stu {
  height: 6px;
  background: var(--alarm);
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
.members {
  margin-top: 10px !important;
}
.name {
  min-width: 200px;
}
</style>
