<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '../api/client'
import { emptyLook, runWishOf, stepped, wishOf, type Look } from '../commonTime'
import DaySilhouettes from '../components/DaySilhouettes.vue'
import FairLoad from '../components/FairLoad.vue'
import FitCard from '../components/FitCard.vue'
import LookFields from '../components/LookFields.vue'
import ProblemNote from '../components/ProblemNote.vue'
import RunDots from '../components/RunDots.vue'
import TakeTime, { type Taking } from '../components/TakeTime.vue'
import WhoList from '../components/WhoList.vue'
import {
  useCommonTime,
  useMoveMeeting,
  useRunTimes,
  useTimeCheck,
  type Fit,
  type RunTime,
} from '../composables/useCommonTime'
import { useDraft } from '../composables/useDraft'
import { useKeys } from '../composables/useKeys'
import { useNotice } from '../composables/useNotice'
import { usePeople } from '../composables/usePeople'
import { useGroups, usePlaces } from '../composables/usePlaces'
import { useSeries } from '../composables/useSeries'
import { useSession } from '../composables/useSession'
import { clock, count, longDay, mediumDay, zonePlace } from '../time'

const { person: me } = useSession()
const { people } = usePeople()
const { groups } = useGroups()
const { places } = usePlaces()
const { say, complain } = useNotice()
const route = useRoute()
// Come here from a series or one of its meetings: its people, its length, and its own times do not count against it.
const seriesId = String(route.query.series ?? '')
const meetingId = String(route.query.meeting ?? '')
// Or to look at one time that somebody offers.
const offeredDay = String(route.query.day ?? '')
const { series } = useSeries(() => seriesId)
const timeZone = computed(() => series.value?.timeZone ?? me.value!.timeZone)
const { draft: look } = useDraft<Look>(`common-time-${me.value!.id}${seriesId}`, () => ({
  ...emptyLook(me.value!.timeZone),
  people: seriesId ? [] : [{ personId: me.value!.id, role: 'required' }],
}))
watch(
  series,
  found => {
    if (!found || look.value.people.length) return
    look.value = {
      ...look.value,
      lengthMin: found.lengthMin,
      beforeMin: found.beforeMin,
      afterMin: found.afterMin,
      place: found.heldPlace?.id ?? 'none',
      people: found.members.filter(one => one.role !== 'informed').map(({ personId, role }) => ({ personId, role })),
    }
  },
  { immediate: true },
)

if (offeredDay) look.value.fromDay = offeredDay
// Or from a series that is being made.
if (route.query.people)
  look.value = {
    ...look.value,
    people: String(route.query.people)
      .split(',')
      .filter(Boolean)
      .map(personId => ({ personId, role: 'required' })),
    groups: [],
    lengthMin: Number(route.query.length) || look.value.lengthMin,
    across: route.query.across === '1',
  }

const except = { ...(meetingId ? { exceptMeetingId: meetingId } : seriesId ? { exceptSeriesId: seriesId } : {}) }
const page = ref(1)
const settled = ref<Look>(JSON.parse(JSON.stringify(look.value)))
let timer: ReturnType<typeof setTimeout>
watch(
  look,
  now => {
    clearTimeout(timer)
    page.value = 1
    timer = setTimeout(() => {
      settled.value = JSON.parse(JSON.stringify(now))
    }, 250)
  },
  { deep: true },
)
const wish = computed(() => {
  const one = wishOf(settled.value, timeZone.value, except)
  return one && { ...one, page: page.value }
})
const { found, error, isSearching } = useCommonTime(wish)
const runWish = computed(() => runWishOf(settled.value, wishOf(settled.value, timeZone.value, except)))
const { runs, error: runError, isSearching: isRunning } = useRunTimes(runWish)

const isAlone = computed(
  () =>
    look.value.people.length === 1 &&
    look.value.people[0]!.personId === me.value?.id &&
    look.value.groups.length + look.value.guests.length === 0,
)
const outcome = computed(() => {
  if (look.value.people.length + look.value.groups.length + look.value.guests.length === 0)
    return 'Choose who must come'
  if (look.value.lengthMin === '' || !(look.value.lengthMin >= 1 && look.value.lengthMin <= 720))
    return 'Give a length from 1 to 720 minutes'
  if (!look.value.fromDay) return 'Give the first day'
  if (!found.value) return isSearching.value ? 'Searching …' : ''
  if (isAlone.value) return 'Your own free times: add who must come'
  if (found.value.holding) return `${count(found.value.holding, 'time')} suit all who must come`
  if (!found.value.total) return 'No time fits these limits'
  // Nobody is known to be missing; but no calendar known, or only tentatively free, is not free.
  return found.value.fewestMissing === 0
    ? 'Nothing against these times, but not all who must come are sure'
    : 'No time suits all who must come'
})
const chosenAt = ref<string | null>(route.query.at ? String(route.query.at) : null)
const check = computed(() => {
  const one = wishOf(settled.value, timeZone.value, except)
  return one && chosenAt.value ? { ...one, at: chosenAt.value } : null
})
const { fit: chosen } = useTimeCheck(check)
const inList = computed(() => found.value?.fits.some(fit => fit.startsAt === chosen.value?.startsAt))
const chosenRule = ref('')
const run = computed(
  () => runs.value?.runs.find(one => one.rule + one.localStart === chosenRule.value) ?? runs.value?.runs[0],
)
const changing = ref(look.value.people.length + look.value.groups.length < 2)

const asked = computed<Schemas['Asked'][]>(
  () =>
    found.value?.people
      .filter(one => !look.value.guests.some(guest => guest.id === one.id))
      .map(one => ({ personId: one.id, role: one.role })) ?? [],
)
const taking = ref<Taking | null>(null)
const isTaking = ref(false)
const placeId = computed(() =>
  look.value.place === 'none'
    ? null
    : (chosen.value?.place?.id ?? (look.value.place === 'fitting' ? null : look.value.place)),
)
function take(kind: 'hold' | 'meeting', fit: Fit) {
  start({ kind, startsAt: fit.startsAt, localStart: fit.localStart, rule: null, dates: [], moves: [] })
}
function takeRun(one: RunTime) {
  start({
    kind: 'series',
    startsAt: one.dates[0]!.startsAt,
    localStart: one.localStart,
    rule: one.rule,
    dates: [],
    moves: one.dates.filter(date => date.repair).map(date => ({ from: date.localStart, to: date.repair!.localStart })),
  })
}
function takeTurns(plan: Schemas['LoadPlan']) {
  start({
    kind: 'series',
    startsAt: '',
    localStart: plan.starts[0]!,
    rule: null,
    dates: plan.starts.slice(1).map(wall => wall.slice(0, 16)),
    moves: [],
  })
}
function start(what: Taking) {
  taking.value = what
  isTaking.value = true
}

const { move, isMoving } = useMoveMeeting()
// The version seen: a second move follows the first.
const version = ref(Number(route.query.version))
let before = { localStart: String(route.query.from ?? ''), lengthMin: Number(route.query.length ?? 0) }
async function moveHere(fit: Fit) {
  try {
    const sheet = await move({
      id: meetingId,
      version: version.value,
      localStart: fit.localStart.slice(0, 16),
      lengthMin: Number(look.value.lengthMin),
    })
    version.value = sheet.version
    say(
      `Moved to ${mediumDay(sheet.localStart)}, ${clock(sheet.localStart)}. Nobody is told yet.`,
      before.localStart
        ? () =>
            move({ id: meetingId, version: version.value, ...before })
              .then(back => {
                version.value = back.version
              })
              .catch(complain)
        : undefined,
    )
    before = { localStart: sheet.localStart.slice(0, 16), lengthMin: sheet.lengthMin }
  } catch (fault) {
    complain(fault as Error)
  }
}

useKeys([
  {
    key: 'n',
    label: 'The next days',
    run: () => {
      look.value.fromDay = stepped(look.value, 1)
    },
  },
  {
    key: 'b',
    label: 'The days before',
    run: () => {
      look.value.fromDay = stepped(look.value, -1)
    },
  },
  {
    key: 'c',
    label: 'Change what is looked for',
    run: () => {
      changing.value = !changing.value
    },
  },
])
</script>

<template>
  <div class="desk page">
    <WhoList v-model="look" :people="people ?? []" :groups="groups ?? []" :looked="found?.people ?? []" class="left" />
    <div class="middle stack">
      <header>
        <div class="row spread">
          <h1>
            <input
              v-model.number="look.lengthMin"
              type="number"
              min="5"
              max="720"
              step="5"
              aria-label="Minutes"
              class="length"
            />
            minutes{{ look.fromDay ? `, from ${longDay(look.fromDay)}` : '' }}
          </h1>
          <button type="button" class="quiet" :aria-expanded="changing" @click="changing = !changing">
            {{ changing ? 'Done' : 'Change' }}
          </button>
        </div>
        <p class="small soft">
          <template v-if="series">For {{ series.title }}. </template>Bars grow with the number of people known to be
          free. <b class="all">Solid</b>: all who must come. <b class="carried">Gold</b>: one short. Times in
          {{ zonePlace(timeZone) }}.
        </p>
      </header>
      <section v-if="changing" class="sheet" aria-label="What is looked for">
        <LookFields v-model="look" :places="places ?? []" :error="error ?? runError" />
      </section>
      <ProblemNote :error="error" />
      <section class="sheet silhouettes" :class="{ waits: isSearching }" aria-labelledby="free">
        <div class="row spread">
          <h2 id="free" class="visually-hidden">Who is free when</h2>
          <button type="button" class="quiet" @click="look.fromDay = stepped(look, -1)">Earlier</button>
          <span class="small soft" role="status">{{ outcome }}</span>
          <button type="button" class="quiet" @click="look.fromDay = stepped(look, 1)">Later</button>
        </div>
        <DaySilhouettes
          v-if="found"
          :found="found"
          :chosen="chosen"
          @take="
            startsAt => {
              chosenAt = startsAt
            }
          "
        />
      </section>
      <section v-if="look.across" class="sheet" :class="{ waits: isRunning }" aria-labelledby="across">
        <div class="row spread">
          <h2 id="across">Across {{ count(Number(look.run.count) || 0, 'meeting') }}</h2>
          <v-btn v-if="run" size="small" @click="takeRun(run)"
            >Make a series at {{ clock(run.localStart)
            }}{{ run.dates.some(date => date.repair) ? ', with repairs' : '' }}</v-btn
          >
        </div>
        <ProblemNote :error="runError" />
        <RunDots
          v-if="runs"
          :runs="runs.runs"
          :chosen="run"
          :zone-place="runs.zonePlace"
          @choose="
            one => {
              chosenRule = one.rule + one.localStart
            }
          "
        />
        <ul v-if="run?.dates.some(date => !date.held)" class="repairs small">
          <li v-for="date in run.dates.filter(one => !one.held)" :key="date.startsAt">
            <span class="alarm strong">{{ mediumDay(date.localStart) }}: {{ date.headline }}.</span>
            {{
              date.repair
                ? `Nearest that works: ${mediumDay(date.repair.localStart)}, ${clock(date.repair.localStart)}.`
                : 'No time near it works.'
            }}
          </li>
        </ul>
        <FairLoad v-if="runs" :load="runs.fairLoad" @take="takeTurns" />
      </section>
    </div>
    <aside class="right" aria-label="Best fits">
      <h2 class="eyebrow">Best fits</h2>
      <template v-if="chosen && !inList"
        ><FitCard :fit="chosen" chosen
          ><v-btn v-if="meetingId" size="small" :loading="isMoving" @click="moveHere(chosen)">Move it here</v-btn
          ><v-btn size="small" :variant="meetingId ? 'outlined' : 'flat'" @click="take('hold', chosen)"
            >Hold this time</v-btn
          ><v-btn size="small" variant="outlined" @click="take('meeting', chosen)">Make a meeting</v-btn></FitCard
        ></template
      >
      <FitCard
        v-for="fit in found?.fits ?? []"
        :key="fit.startsAt"
        :fit="fit"
        :chosen="fit.startsAt === chosen?.startsAt"
        @choose="chosenAt = fit.startsAt"
      >
        <v-btn v-if="meetingId" size="small" :loading="isMoving" @click="moveHere(fit)">Move it here</v-btn>
        <v-btn size="small" :variant="meetingId ? 'outlined' : 'flat'" @click="take('hold', fit)">Hold this time</v-btn
        ><v-btn size="small" variant="outlined" @click="take('meeting', fit)">Make a meeting</v-btn>
      </FitCard>
      <p v-if="found && found.total > found.page * found.pageSize" class="row">
        <button type="button" class="quiet" @click="page++">Further fits</button
        ><button v-if="page > 1" type="button" class="quiet" @click="page = 1">The best again</button>
      </p>
      <section v-if="found?.remedies.length" aria-labelledby="helps" class="helps">
        <h2 id="helps" class="eyebrow">What would help</h2>
        <ul class="ruled">
          <li v-for="remedy in found.remedies" :key="remedy.sentence" class="small">{{ remedy.sentence }}</li>
        </ul>
      </section>
    </aside>
    <TakeTime
      v-if="taking && found"
      v-model="isTaking"
      :taking="taking"
      :people="asked"
      :length-min="Number(look.lengthMin)"
      :time-zone="timeZone"
      :place-id="placeId"
      :before-min="look.beforeMin"
      :after-min="look.afterMin"
    />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 216px minmax(0, 1fr) 300px;
  gap: 24px;
  align-items: start;
}
h1 {
  font-size: 1.7143rem !important;
}
.length {
  width: 74px;
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 2px solid var(--pine);
  text-align: right;
}
.all {
  color: var(--pine);
}
.right {
  display: grid;
  gap: 10px;
}
.silhouettes {
  padding: 12px 16px;
}
.waits {
  opacity: 0.75;
}
.repairs {
  margin-top: 10px !important;
  display: grid;
  gap: 3px;
}
.helps {
  margin-top: 8px;
}
@media (max-width: 1080px) {
  .page {
    grid-template-columns: 200px minmax(0, 1fr);
  }
  .right {
    grid-column: 1 / -1;
  }
}
@media (max-width: 760px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .middle {
    display: contents;
  }
  .middle > header {
    order: -4;
  }
  .middle > :not(header) {
    order: -2;
    margin-top: 0 !important;
  }
  .left {
    order: -3;
  }
  .right {
    order: -3;
  }
}
</style>
