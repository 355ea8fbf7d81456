<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { beginAsking } from '../asking'
import { helped, isWithin, outcomeOf, stepped, type Taking } from '../commonTime'
import AcrossPanel from '../components/AcrossPanel.vue'
import BestFits from '../components/BestFits.vue'
import DaySilhouettes from '../components/DaySilhouettes.vue'
import LookFields from '../components/LookFields.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TakeTime from '../components/TakeTime.vue'
import WhoList from '../components/WhoList.vue'
import { useCommonTime, useRunTimes, useTimeCheck } from '../composables/useCommonTime'
import { useKeys } from '../composables/useKeys'
import { useLook } from '../composables/useLook'
import { useMoveHere } from '../composables/useMoveHere'
import { usePeople } from '../composables/usePeople'
import { useSession } from '../composables/useSession'
import { useGroups, usePlaces } from '../composables/usePlaces'
import { longDay, wallOf, zoneCity } from '../time'

/** When all who must come are free: who, what is looked for, the days as silhouettes, and the best fits. */
const { people } = usePeople()
const { groups } = useGroups()
const { places } = usePlaces()
const { look, page, series, meetingId, timeZone, wish, first, runWish, isAlone } = useLook()
const { found, error, isSearching } = useCommonTime(wish)
const { runs, error: runError, isSearching: isRunning } = useRunTimes(runWish)
const outcome = computed(() => outcomeOf(look.value, found.value, isSearching.value, isAlone.value))

const { query } = useRoute()
const router = useRouter()
const { person: me } = useSession()
const chosenAt = ref<string | null>(query.at ? String(query.at) : null)
const { fit: chosen } = useTimeCheck(() =>
  first.value && chosenAt.value ? { ...first.value, at: chosenAt.value } : null,
)
// A time chosen by hand goes when one leaves its days.
watch(
  () => [look.value.fromDay, look.value.days],
  () => {
    if (chosenAt.value && !isWithin(wallOf(chosenAt.value, timeZone.value), look.value)) chosenAt.value = null
  },
)
/** What would help is looked for, and its first time is chosen. */
function help(remedy: Schemas['Remedy']) {
  look.value = helped(look.value, remedy)
  chosenAt.value = null
}
const changing = ref(look.value.people.length + look.value.groups.length < 2)
const { moveHere, isMoving } = useMoveHere(meetingId)

const asked = computed<Schemas['Asked'][]>(
  () =>
    found.value?.people
      .filter(one => !look.value.guests.some(guest => guest.id === one.id))
      .map(one => ({ personId: one.id, role: one.role })) ?? [],
)
const placeId = computed(() => {
  const { place } = look.value
  return place === 'none' ? null : (chosen.value?.place?.id ?? (place === 'fitting' ? null : place))
})
const taking = ref<Taking | null>(null)
const isTaking = ref(false)
function start(what: Taking) {
  taking.value = what
  isTaking.value = true
}
const step = (by: 1 | -1) => {
  look.value.fromDay = stepped(look.value, by)
}

/** The best of these times are put to those who are looked for. */
function askFor(starts: string[]) {
  const { people: asked, groups: inGroups, guests, lengthMin, fromDay, place } = look.value
  beginAsking(
    {
      people: asked.filter(one => one.personId !== me.value?.id),
      groups: inGroups,
      lengthMin,
      times: starts.map(startsAt => ({ id: newKey(), startsAt })),
      placeId: place === 'none' || place === 'fitting' ? null : place,
      title: series.value?.title ?? '',
      seriesId: series.value?.id ?? null,
      meetingId: meetingId || null,
      outcome: meetingId ? 'move' : series.value ? 'within' : 'meeting',
      names: guests.map(one => ({ name: one.name, role: one.role })),
    },
    fromDay,
  )
  router.push('/asking/new')
}

useKeys([
  { key: 'n', label: 'The next days', run: () => step(1) },
  { key: 'b', label: 'The days before', run: () => step(-1) },
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
        <p class="eyebrow">
          <router-link to="/asking">Times asked for</router-link> ·
          <router-link to="/open-hours">Open hours</router-link>
        </p>
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
          <template v-if="series">For {{ series.title }}. </template>Each bar is a meeting of
          {{ look.lengthMin || '…' }} minutes that begins there: it grows with the number of people known to be free for
          all of it. <b class="all">Solid</b>: all who must come. <b class="carried">Gold</b>: one short. Times in
          {{ zoneCity(timeZone) }}.
        </p>
      </header>
      <section v-if="changing" class="sheet wanted" aria-label="What is looked for">
        <LookFields v-model="look" :places="places ?? []" :error="error ?? runError" />
      </section>
      <ProblemNote :error="error" />
      <section class="sheet silhouettes" :class="{ waits: isSearching }" aria-labelledby="free">
        <div class="row spread">
          <h2 id="free" class="visually-hidden">Who is free when</h2>
          <button type="button" class="quiet" @click="step(-1)">Earlier</button>
          <span class="small soft" role="status">{{ outcome }}</span>
          <button type="button" class="quiet" @click="step(1)">Later</button>
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
      <AcrossPanel
        v-if="look.across"
        :class="{ waits: isRunning }"
        :runs="runs"
        :meetings="Number(look.run.count) || 0"
        :error="runError"
        :is-running="isRunning"
        @take="start"
      />
    </div>
    <BestFits
      v-model:page="page"
      :found="found"
      :chosen="chosen"
      :may-move="meetingId !== ''"
      :is-moving="isMoving"
      class="right"
      @choose="startsAt => (chosenAt = startsAt)"
      @move="fit => moveHere(fit, Number(look.lengthMin))"
      @take="start"
      @help="help"
      @ask="askFor"
    />
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
  font-size: 1.7143rem;
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
.silhouettes {
  padding: 12px 16px;
}
.waits {
  cursor: progress;
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
    margin-top: 0;
  }
  /* Where the button is that opens it. */
  .middle > section.wanted {
    order: -4;
  }
  .left {
    order: -3;
  }
  .right {
    order: -3;
  }
}
</style>
