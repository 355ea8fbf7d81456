<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { withKnown } from '../choices'
import { api, dataOf, ProblemError, type Schemas, type Series } from '../api/client'
import { list } from '../time'
import { usePeople } from '../composables/usePeople'
import { useSeries } from '../composables/useSeries'
import FormDialog from './FormDialog.vue'
import { callForm, callOf, isOurs, USUAL_DOOR } from '../calls'
import CallFields from './CallFields.vue'
import DoorFields from './DoorFields.vue'
import MarkField from './MarkField.vue'
import OptionFields from './OptionFields.vue'
import PlaceFields from './PlaceFields.vue'
import PeoplePicker from './PeoplePicker.vue'
import RunnerFields from './RunnerFields.vue'
import { useFaults } from '../composables/useFaults'
import { useNotice } from '../composables/useNotice'
import { useSession } from '../composables/useSession'

/** Title, purpose, place and people of a series. */
const { series } = defineProps<{ series: Series }>()
const open = defineModel<boolean>({ required: true })

const { change, changeError, isChanging, resetChange } = useSeries(() => series.id)
const { people } = usePeople()
const { show, complain } = useNotice()
const form = ref({
  title: '',
  purpose: '',
  place: '',
  placeId: null as string | null,
  beforeMin: 0,
  afterMin: 0,
  placeAnyway: false,
  alsoPlaceIds: [] as string[],
  remindMin: 0,
  remindPapers: true,
  askOwnersDays: 2,
  wording: '',
  call: callForm(null),
  door: { ...USUAL_DOOR },
  mark: null as Schemas['Mark'] | null,
  options: { passOn: false, answersAsked: true, signUp: false, signUpLimit: null } as Schemas['Options'],
  keeperId: '',
  chairId: '',
  quorum: null as number | null,
  quorumIn: 'people' as 'people' | 'percent',
  voteRule: 'votes' as Schemas['VoteRule'],
  members: [] as Schemas['MemberWish'][],
  groups: [] as Schemas['AskedGroup'][],
  guests: [] as Schemas['SeriesGuest'][],
  version: 0,
})
watch(open, shown => {
  if (!shown) return
  resetChange()
  part.value = 'Series'
  form.value = {
    title: series.title,
    purpose: series.purpose ?? '',
    place: series.place ?? '',
    placeId: series.heldPlace?.id ?? null,
    beforeMin: series.beforeMin,
    afterMin: series.afterMin,
    placeAnyway: false,
    alsoPlaceIds: series.alsoHeld.map(place => place.id),
    remindMin: series.remindMin,
    remindPapers: series.remindPapers,
    askOwnersDays: series.askOwnersDays,
    wording: series.wording ?? '',
    call: callForm(series.call, series.callKind, series.callDial),
    door: { ...series.door },
    mark: series.mark,
    options: { ...series.options },
    keeperId: series.keeper.id,
    chairId: series.chair.id,
    quorum: series.quorum ?? series.quorumPercent,
    quorumIn: series.quorumPercent ? ('percent' as const) : ('people' as const),
    voteRule: series.voteRule,
    members: series.members
      .filter(one => !one.guest && !one.viaGroupId)
      .map(({ personId, role }) => ({ personId, role })),
    groups: series.groups.map(one => ({ groupId: one.id, role: one.role })),
    guests: series.members
      .filter(one => one.guest)
      .map(one => ({ id: one.personId, name: one.name, email: one.email!, role: one.role })),
    version: series.version,
  }
})
const choices = computed(() =>
  withKnown(
    (people.value ?? []).map(person => ({ title: person.name, value: person.id })),
    series.keeper,
    series.chair,
  ),
)
/** The form in four parts; what is wrong brings up its own. */
const PARTS = ['Series', 'Place and call', 'Who', 'Rules'] as const
type Part = (typeof PARTS)[number]
const part = ref<Part>('Series')
const FAULTS: [RegExp, Part][] = [
  [/^\/(title|purpose|mark)/, 'Series'],
  [/^\/(place|placeId|alsoPlaceIds|beforeMin|afterMin|call|door)/, 'Place and call'],
  [/^\/(keeperId|chairId|members|groups|guests)/, 'Who'],
  [/^\/(quorum|quorumPercent|wording|options)/, 'Rules'],
]
watch(changeError, fault => {
  if (!(fault instanceof ProblemError)) return
  const pointer = fault.problem.errors?.[0]?.pointer ?? (fault.code.startsWith('place-') ? '/placeId' : '')
  part.value = FAULTS.find(([pattern]) => pattern.test(pointer))?.[1] ?? part.value
})
/** Something of where it meets differs from what holds. */
const elsewhere = computed(() => {
  const { placeId, place, call } = form.value
  return (
    placeId !== (series.heldPlace?.id ?? null) ||
    place !== (series.place ?? '') ||
    JSON.stringify(call) !== JSON.stringify(callForm(series.call, series.callKind, series.callDial))
  )
})
const QUORUM = [
  { title: 'people', value: 'people' },
  { title: '% of those who must come', value: 'percent' },
]
const RULES = [
  { title: 'a majority of the votes', value: 'votes' },
  { title: 'a majority of those present', value: 'present' },
  { title: 'two thirds of the votes', value: 'two_thirds' },
]
const ASKED = [
  { title: 'never', value: 0 },
  { title: 'a day before', value: 1 },
  { title: 'two days before', value: 2 },
  { title: 'three days before', value: 3 },
  { title: 'a week before', value: 7 },
]
const REMINDERS = [
  { title: 'none', value: 0 },
  { title: '15 minutes before', value: 15 },
  { title: 'an hour before', value: 60 },
  { title: 'a day before', value: 1440 },
]
const SHOWN = /^\/(title|wording|quorum|quorumPercent|placeId|alsoPlaceIds|beforeMin|afterMin|call\/\w+)$/
const { at, rest } = useFaults(changeError, SHOWN)
const stale = computed(() => changeError.value instanceof ProblemError && changeError.value.code === 'changed-since')

/** What somebody else has saved meanwhile, beside what is in the form. */
const theirs = ref<{ name: string; theirs: string; mine: string }[] | null>(null)
watch(stale, now => {
  if (!now) theirs.value = null
})
const nameOf = (id: string) => people.value?.find(person => person.id === id)?.name ?? 'a guest'
async function look() {
  const now = await dataOf(api.GET('/series/{id}', { params: { path: { id: series.id } } }))
  const mine = form.value
  const all: [string, string, string][] = [
    ['Title', now.title, mine.title],
    ['Why it meets', now.purpose ?? '', mine.purpose],
    ['Where', now.place ?? '', mine.place],
    ['Keeper', now.keeper.name, nameOf(mine.keeperId)],
    ['Chair', now.chair.name, nameOf(mine.chairId)],
    [
      'People',
      list(
        now.members
          .filter(one => !one.guest && !one.viaGroupId)
          .map(one => one.name)
          .sort(),
      ),
      list(mine.members.map(one => nameOf(one.personId)).sort()),
    ],
  ]
  theirs.value = all
    .filter(([, one, other]) => one !== other)
    .map(([name, one, other]) => ({ name, theirs: one || 'nothing', mine: other || 'nothing' }))
}

/** Whoever gives both away loses the right to change the series, and hears it before. */
const { person: me } = useSession()
const runs = (ids: string[]) => ids.includes(me.value?.id ?? '')
const losing = computed(
  () => runs([series.keeper.id, series.chair.id]) && !runs([form.value.keeperId, form.value.chairId]),
)

function wish() {
  // After somebody else's change has been shown, saving again means this one.
  const version = stale.value ? (changeError.value as ProblemError).problem.version! : form.value.version
  const { quorumIn, ...rest } = form.value
  return {
    ...rest,
    quorum: (quorumIn === 'people' && form.value.quorum) || null,
    quorumPercent: (quorumIn === 'percent' && form.value.quorum) || null,
    purpose: form.value.purpose || null,
    place: form.value.place || null,
    wording: form.value.wording || null,
    call: callOf(form.value.call),
    version,
  }
}

/** With what is in the form, once more. */
async function openAgain(kept: string) {
  open.value = true
  await nextTick()
  form.value = JSON.parse(kept)
}
/** It happens when the notice has gone, so that it can be taken back as long as one may. */
function handOver() {
  const body = wish()
  const kept = JSON.stringify(form.value)
  open.value = false
  show({
    text: `“${series.title}” goes to ${nameOf(form.value.keeperId)} in a moment: you cannot change it then.`,
    undo: () => void openAgain(kept),
    settle: () =>
      change(body).catch((fault: unknown) => {
        complain(fault as Error)
        return openAgain(kept)
      }),
  })
}
async function save() {
  if (losing.value) return handOver()
  try {
    await change(wish())
    open.value = false
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`series-${series.id}`"
    title="Edit the series"
    :verb="stale ? 'Save mine all the same' : 'Save'"
    :error="rest"
    :busy="isChanging"
    :width="620"
    @submit="save"
  >
    <div class="parts" role="group" aria-label="What to edit">
      <button
        v-for="one in PARTS"
        :key="one"
        type="button"
        class="quiet"
        :aria-pressed="part === one"
        @click="part = one"
      >
        {{ one }}
      </button>
    </div>
    <div v-show="part === 'Series'" class="part">
      <v-text-field v-model="form.title" label="Title" autofocus :error-messages="at('/title')" />
      <MarkField v-model="form.mark" />
      <v-textarea v-model="form.purpose" label="Why it meets" />
    </div>
    <div v-show="part === 'Place and call'" class="part">
      <PlaceFields v-model="form" :error="changeError" />
      <CallFields v-model="form.call" :error="changeError" :here="series.callHere" />
      <DoorFields v-if="isOurs(form.call.kind)" v-model="form.door" />
      <p v-if="elsewhere" class="carried small" role="status">
        Once it is saved, this holds for all meetings to come, but for those that have a place or call of their own.
        Those that are over keep theirs.
      </p>
    </div>
    <div v-show="part === 'Who'" class="part">
      <RunnerFields v-model="form" :choices="choices" />
      <p v-if="losing" class="carried strong" role="status">
        You hand this series over: once it is saved, you cannot change it any more. {{ nameOf(form.keeperId) }} hears of
        it by mail, and so do you.
      </p>
      <PeoplePicker
        v-model="form.members"
        v-model:groups="form.groups"
        v-model:guests="form.guests"
        :people="people ?? []"
        :fixed="[form.keeperId, form.chairId]"
      />
    </div>
    <div v-show="part === 'Rules'" class="part">
      <div class="three">
        <v-text-field
          v-model.number="form.quorum"
          type="number"
          min="1"
          label="Quorum"
          :error-messages="at('/quorum') ?? at('/quorumPercent')"
        />
        <v-select v-model="form.quorumIn" :items="QUORUM" label="Counted in" />
        <v-select v-model="form.voteRule" :items="RULES" label="A motion is carried by" />
      </div>
      <v-textarea
        v-model="form.wording"
        label="Your own words in the mail"
        :error-messages="at('/wording')"
        hint="{title} {next} {rule} {place} {call} {answer link} {keeper} {agenda} {left over} are filled in"
        persistent-hint
      />
      <OptionFields v-model="form.options" />
      <div class="remind">
        <v-select v-model="form.remindMin" :items="REMINDERS" label="Reminder by mail" /><v-checkbox
          v-model="form.remindPapers"
          label="Tell of papers the day before"
        />
        <v-select v-model="form.askOwnersDays" :items="ASKED" label="Ask owners how their actions go" />
      </div>
    </div>
    <div v-if="stale" class="small theirs" role="status">
      <p v-if="!theirs"><button type="button" class="quiet" @click="look()">Look at theirs</button></p>
      <p v-for="one in theirs ?? []" :key="one.name">
        <b>{{ one.name }}</b> theirs: {{ one.theirs }} · yours: {{ one.mine }}
      </p>
      <p v-if="theirs?.length === 0">Theirs reads the same as yours in all that stands here.</p>
    </div>
    <p class="soft small">Nobody is told of this until you send the invitation again.</p>
  </FormDialog>
</template>

<style scoped>
.theirs {
  padding: 8px 12px;
  background: var(--gold-pale);
}
.remind {
  display: grid;
  grid-template-columns: 1fr 1.3fr;
  gap: 12px;
  align-items: center;
}
.three {
  display: grid;
  grid-template-columns: 110px 1fr 1.3fr;
  gap: 12px;
}
.part {
  display: grid;
  gap: 14px;
}
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  border-bottom: 1px solid var(--line);
}
.parts [aria-pressed='true'] {
  border-bottom: 3px solid var(--pine);
}
@media (max-width: 500px) {
  .three,
  .remind {
    grid-template-columns: 1fr;
  }
}
</style>
