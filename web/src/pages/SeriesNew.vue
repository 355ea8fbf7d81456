<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import { type Schemas } from '../api/client'
import { callForm, callOf, isOurs, USUAL_DOOR } from '../calls'
import { withKnown } from '../choices'
import CallFields from '../components/CallFields.vue'
import DoorFields from '../components/DoorFields.vue'
import MarkField from '../components/MarkField.vue'
import OptionFields from '../components/OptionFields.vue'
import PlaceFields from '../components/PlaceFields.vue'
import PeoplePicker from '../components/PeoplePicker.vue'
import RunnerFields from '../components/RunnerFields.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SeriesFile from '../components/SeriesFile.vue'
import RunCheck from '../components/RunCheck.vue'
import RunDates from '../components/RunDates.vue'
import RunFields from '../components/RunFields.vue'
import { useDraft } from '../composables/useDraft'
import { usePeople } from '../composables/usePeople'
import { useNewRunCheck } from '../composables/useRunChange'
import { useCreateSeries, useRunPreview } from '../composables/useSeries'
import { useLikeSeries } from '../composables/useLikeSeries'
import { useSession } from '../composables/useSession'
import { emptyRun, formOf, wishOf, type RunForm } from '../rule'
import { focusFault, useFaults } from '../composables/useFaults'

const { person: me } = useSession()
const { people } = usePeople()
const router = useRouter()
const route = useRoute()
/** The series this one is begun like, if any. */
const likeId = route.query.like ? String(route.query.like) : null
const { create, error, isCreating } = useCreateSeries()

interface Form {
  id: string
  title: string
  purpose: string
  place: string
  placeId: string | null
  beforeMin: number
  afterMin: number
  placeAnyway?: boolean
  alsoPlaceIds?: string[]
  call?: ReturnType<typeof callForm>
  door?: Schemas['Door']
  mark?: Schemas['Mark'] | null
  wording?: string | null
  moves?: Schemas['DateMoved'][]
  calledOff?: Schemas['DateOff'][]
  added?: string[]
  options?: Schemas['Options']
  keeperId: string
  chairId: string
  members: Schemas['MemberWish'][]
  groups: Schemas['AskedGroup'][]
  guests: Schemas['SeriesGuest'][]
  run: RunForm
}
const USUAL: Schemas['Options'] = { passOn: false, answersAsked: true, signUp: false, signUpLimit: null }
const first = newKey()
const { draft: form, forget } = useDraft<Form>(`series-${likeId ?? me.value!.id}`, () => ({
  id: first,
  title: '',
  purpose: '',
  place: '',
  placeId: null,
  beforeMin: 0,
  afterMin: 0,
  call: callForm(null),
  door: { ...USUAL_DOOR },
  options: USUAL,
  keeperId: me.value!.id,
  chairId: me.value!.id,
  members: [{ personId: me.value!.id, role: 'required' }],
  groups: [],
  guests: [],
  run: emptyRun(me.value!.timeZone),
}))
form.value.call = { ...callForm(null), ...form.value.call } // a draft may be from before there were calls
form.value.door ??= { ...USUAL_DOOR }
form.value.options ??= { ...USUAL }
form.value.alsoPlaceIds ??= []
form.value.mark ??= null
const { like, error: likeError } = useLikeSeries(likeId, route.query.once === '1', form, first, me.value!.id)
if (form.value.id !== first && form.value.title === '') form.value.id = first

// Asked a moment after the last change, so that typing does not ask at each key.
const wish = ref(wishOf(form.value.run))
let timer: ReturnType<typeof setTimeout>
watch(
  () => form.value.run,
  run => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      wish.value = wishOf(run)
    }, 200)
  },
  { deep: true },
)
const { preview, error: runError, isReading } = useRunPreview(wish)
const checkWish = computed(() =>
  wish.value && !runError.value && form.value.members.length + form.value.groups.length > 1
    ? { run: wish.value, people: form.value.members, groups: form.value.groups }
    : null,
)
const { check } = useNewRunCheck(checkWish)
/** To the search, with these people and this length. */
const betterTime = computed(() => ({
  path: '/common-time',
  query: {
    people: form.value.members.map(member => member.personId).join(','),
    length: String(form.value.run.lengthMin),
    across: '1',
  },
}))
const missing = computed(() => {
  const run = form.value.run
  if (run.repeat === 'weekly' && run.weekdays.length === 0)
    return 'Choose a weekday; then the rule stands here as a sentence, with all its dates.'
  return 'Fill in when it begins and how long it takes; then the rule stands here as a sentence, with all its dates.'
})
const choices = computed(() => {
  const all = (people.value ?? []).map(person => ({ title: person.name, value: person.id }))
  const chosen = people.value ? [] : runners.value.map(id => ({ id, name: id === me.value?.id ? me.value.name : '…' }))
  return withKnown(all, ...chosen)
})
const runners = computed(() => [form.value.keeperId, form.value.chairId])
watch(runners, ids =>
  ids.forEach(id => {
    if (!form.value.members.some(member => member.personId === id))
      form.value.members.push({ personId: id, role: 'required' })
  }),
)

const tried = ref(false)
const { at, rest } = useFaults(error, /^\/(title$|run|placeId$|alsoPlaceIds$|beforeMin$|afterMin$|call)/)
const titleFault = computed(() => (tried.value && !form.value.title.trim() ? 'Give the series a title.' : at('/title')))

/** A series that was kept elsewhere, with what was moved and called off there. */
function moveIn(draft: Schemas['SeriesDraft']) {
  Object.assign(form.value, {
    title: draft.title,
    purpose: draft.purpose ?? '',
    place: draft.place ?? '',
    call: callForm(draft.url ? { url: draft.url } : null),
    members: [{ personId: me.value!.id, role: 'required' }, ...draft.people],
    ...(draft.chairId ? { chairId: draft.chairId } : {}),
    guests: draft.guests.map(guest => ({ ...guest, id: newKey() })),
    moves: draft.moves,
    calledOff: draft.calledOff,
    added: draft.added,
    run: formOf(draft, draft.dates),
  })
}
/** Those hold for the dates as they came: with another rule or time they are none any more. */
function exceptions(run: Schemas['RunWish']) {
  const time = run.localStart.slice(11, 16)
  const fits = (wall: string) => wall.slice(11, 16) === time
  return {
    moves: (form.value.moves ?? []).filter(one => fits(one.from)),
    calledOff: (form.value.calledOff ?? []).filter(one => fits(one.on)),
    added: form.value.added ?? [],
  }
}

const page = useTemplateRef<HTMLFormElement>('page')
/** What stands in the way, said where the hand is: its field may be far above. */
const inTheWay = computed(() => {
  if (titleFault.value) return titleFault.value
  if (error.value) return error.value.message
  return tried.value && runError.value ? runError.value.message : undefined
})

async function save() {
  tried.value = true
  const run = wishOf(form.value.run)
  if (!form.value.title.trim() || !run) {
    await nextTick()
    focusFault(page.value)
    return
  }
  const {
    id,
    title,
    purpose,
    place,
    placeId,
    beforeMin,
    afterMin,
    placeAnyway,
    alsoPlaceIds,
    call,
    door,
    options,
    keeperId,
    chairId,
    members,
    groups,
    guests,
  } = form.value
  try {
    const series = await create({
      id,
      title,
      purpose: purpose || null,
      place: place || null,
      placeId: placeId ?? null,
      beforeMin: beforeMin ?? 0,
      afterMin: afterMin ?? 0,
      placeAnyway: placeAnyway ?? false,
      alsoPlaceIds: alsoPlaceIds ?? [],
      call: callOf(call!),
      door: door!,
      mark: form.value.mark,
      wording: form.value.wording,
      ...exceptions(run),
      ...(likeId ? { likeId } : {}),
      options,
      keeperId,
      chairId,
      members,
      groups: groups ?? [],
      guests: guests ?? [],
      run,
    })
    // The page goes first: an emptied form would be found wanting while it is still shown.
    await router.push({ path: `/series/${series.id}`, query: { show: 'sheets' } })
    forget()
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <div class="desk">
    <h1>{{ likeId ? 'Again, like this' : 'New series' }}</h1>
    <ProblemNote :error="likeError" />
    <SeriesFile v-if="!likeId" @take="moveIn" />
    <p v-if="like" class="soft">
      Begun like <router-link :to="`/series/${like.id}`">{{ like.title }}</router-link>: people, place, call, length,
      wording and standing agenda. Dates are set afresh, and nothing there is changed.
    </p>
    <form ref="page" class="two page" novalidate @submit.prevent="save">
      <div class="sheet stack">
        <v-text-field v-model="form.title" label="Title" autofocus :error-messages="titleFault" />
        <MarkField v-model="form.mark!" />
        <v-textarea v-model="form.purpose" label="Why it meets" />
        <RunFields v-model="form.run" :problem="error ?? runError" :tried="tried" />
        <PlaceFields v-model="form" :error="error" />
        <CallFields v-model="form.call!" :error="error" />
        <DoorFields v-if="isOurs(form.call!.kind)" v-model="form.door!" />
        <h2>People</h2>
        <RunnerFields v-model="form" :choices="choices" />
        <PeoplePicker
          v-model="form.members"
          v-model:groups="form.groups"
          v-model:guests="form.guests"
          :people="people ?? []"
          :fixed="runners"
        />
        <OptionFields v-model="form.options!" />
        <ProblemNote :error="rest" />
        <div class="row">
          <v-btn type="submit" :loading="isCreating">Make the series</v-btn>
          <p v-if="inTheWay" class="alarm small" role="alert">{{ inTheWay }}</p>
          <p v-else class="soft small">Nobody is told yet. You send the invitation afterwards.</p>
        </div>
      </div>
      <aside class="back" :class="{ waits: isReading }" aria-label="The rule read back">
        <p class="eyebrow">Read back</p>
        <template v-if="preview && wish && !runError">
          <RunCheck v-if="check" :check="check" class="check" />
          <p v-if="check && (check.clashes.length || check.outside.length)" class="check">
            <router-link :to="betterTime">Find a better time</router-link>
          </p>
          <RunDates :preview="preview" />
        </template>
        <p v-else-if="runError" class="alarm" role="alert">{{ runError.message }}</p>
        <p v-else class="soft">{{ missing }}</p>
      </aside>
    </form>
  </div>
</template>

<style scoped>
.page {
  margin-top: 16px;
}
.back {
  position: sticky;
  top: 16px;
  padding: 8px 4px;
}
.back .eyebrow {
  margin-bottom: 8px;
}
.waits {
  cursor: progress;
}
.check {
  margin-bottom: 8px;
}
</style>
