<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, nextTick, ref, toRefs, useTemplateRef, watch } from 'vue'
import { lengthWords } from '../reading'
import { api, dataOf, type Refusal, type Schemas } from './api'
import VisitorQuestions from './VisitorQuestions.vue'
import { useTimes } from './useTimes'
import { useZone } from './useZone'
import VisitorTimes from './VisitorTimes.vue'
import ZoneSwitch from './ZoneSwitch.vue'

/** Which times somebody may book, and taking one: for visitors, without an account. */
const { id, token } = defineProps<{ id: string; token: string }>()
const path = { params: { path: { id, token } } }
const hostZone = ref<string[]>([])
const { zone, first, all, place, moment } = useZone(hostZone)
const shown = useTimes(zone, wanted =>
  dataOf(api.GET('/open-hours-links/{id}/{token}', { params: { path: { id, token }, query: wanted } })),
)
const { times, error, lengthMin, ofDay } = toRefs(shown)
watch(times, found => {
  if (found) hostZone.value = [found.hostZone]
})

const host = ref<number | null>(null)
const offered = computed(() =>
  host.value === null ? ofDay.value : ofDay.value.filter(one => one.hosts.includes(host.value!)),
)
const chosen = ref('')
const form = ref({ name: '', email: '', answers: [] as (string | boolean)[] })
const draft = `left-over:book:${id}`
const saved = localStorage.getItem(draft)
if (saved) form.value = { ...form.value, ...JSON.parse(saved) }
watch(form, now => localStorage.setItem(draft, JSON.stringify(now)), { deep: true })

const booking = ref<Schemas['Booking'] | null>(null)
const fault = ref<Refusal | null>(null)
const isBooking = ref(false)
let key = newKey()
const details = useTemplateRef<HTMLElement>('details')
async function choose(startsAt: string) {
  chosen.value = startsAt
  fault.value = null
  await nextTick()
  details.value?.scrollIntoView({ block: 'nearest' })
  details.value?.querySelector<HTMLInputElement>('input')?.focus()
}
/** What is missing, at every field at once; what else is wrong the server says. */
const missing = ref<Record<string, string>>({})
function lookWhatIsMissing() {
  const { name, email, answers } = form.value
  const found: Record<string, string> = {}
  if (!name.trim()) found['/name'] = 'Give your name.'
  if (!email.trim()) found['/email'] = 'Give your mail address.'
  times.value!.questions.forEach((one, i) => {
    const given = answers[i]
    if (one.required && (typeof given === 'string' ? !given.trim() : !given))
      found[`/answers/${i}`] = 'Please answer this.'
  })
  missing.value = found
  return Object.keys(found).length > 0
}
const at = (pointer: string) => missing.value[pointer] ?? fault.value?.at(pointer)
const toFault = async () => {
  await nextTick()
  details.value?.querySelector<HTMLElement>('[aria-invalid=true]')?.focus()
}
async function book() {
  fault.value = null
  if (lookWhatIsMissing()) return toFault()
  isBooking.value = true
  const { name, email, answers } = form.value
  try {
    const body = {
      id: key,
      startsAt: chosen.value,
      lengthMin: lengthMin.value!,
      name,
      email,
      timeZone: zone.value,
      host: times.value?.mode === 'chosen' ? host.value : null,
      answers: times.value!.questions.map((_, i) => answers[i] ?? null),
    }
    booking.value = await dataOf(api.POST('/open-hours-links/{id}/{token}/bookings', { ...path, body }))
    localStorage.removeItem(draft)
  } catch (refused) {
    fault.value = refused as Refusal
    if (fault.value.code === 'taken') {
      key = newKey()
      void shown.again()
    }
    await toFault()
  } finally {
    isBooking.value = false
  }
}
const nearest = computed(() => (fault.value?.code === 'taken' ? (fault.value.problem.nearest ?? []) : []))
const atField = computed(
  () =>
    ['/name', '/email'].some(pointer => fault.value?.at(pointer)) ||
    (fault.value?.problem.errors ?? []).some(one => one.pointer.startsWith('/answers/')),
)
</script>

<template>
  <section v-if="error?.status === 404" class="sheet stack" role="alert">
    <h1>This link is no longer valid</h1>
    <p>Nothing can be booked here any more. Ask whoever gave you the link.</p>
  </section>
  <section v-else-if="error && !times" class="sheet stack" role="alert">
    <h1>No connection just now</h1>
    <p>The times could not be read. Your link is fine.</p>
    <button type="button" class="button" @click="shown.again()">Try again</button>
  </section>
  <p v-else-if="!times" class="soft" role="status">The times are being read …</p>
  <section v-else-if="booking" class="sheet stack" aria-live="polite">
    <h1>{{ booking.state === 'held' ? 'Please confirm it by mail' : 'Booked' }}</h1>
    <p class="strong">{{ moment(booking.startsAt) }} {{ place }} time</p>
    <p>{{ booking.title }}, with {{ booking.hosts.join(', ') }}{{ booking.location ? `, ${booking.location}` : '' }}</p>
    <p v-if="booking.state === 'held'">
      A mail is on its way to {{ form.email }}. Press the link in it within 15 minutes; until then the time is held for
      you.
    </p>
    <template v-else>
      <p v-if="booking.afterWords" class="words done">{{ booking.afterWords }}</p>
      <p>The invitation is on its way to {{ form.email }}.</p>
      <p v-if="booking.path"><a :href="booking.path">Move it or give it back</a></p>
    </template>
  </section>
  <div v-else class="sheet stack">
    <header class="about">
      <p class="eyebrow">With {{ times.hosts.join(times.mode === 'together' ? ' and ' : ' or ') }}</p>
      <h1>{{ times.title }}</h1>
      <p class="soft">
        {{
          [
            times.lengths.length === 1 ? lengthWords(times.lengths[0]!) : null,
            times.location,
            times.online ? 'with a call' : null,
          ]
            .filter(Boolean)
            .join(' · ')
        }}
      </p>
      <p v-if="times.words" class="words">{{ times.words }}</p>
    </header>
    <p v-if="times.paused" class="done">Nothing can be booked just now.</p>
    <template v-else>
      <fieldset v-if="times.lengths.length > 1" class="choice">
        <legend class="small strong">How long?</legend>
        <label v-for="one in times.lengths" :key="one" :class="{ on: one === lengthMin }"
          ><input v-model="lengthMin" type="radio" name="length" class="visually-hidden" :value="one" />{{
            lengthWords(one)
          }}</label
        >
      </fieldset>
      <fieldset v-if="times.mode === 'chosen'" class="choice">
        <legend class="small strong">With whom?</legend>
        <label :class="{ on: host === null }"
          ><input v-model="host" type="radio" name="host" class="visually-hidden" :value="null" />Anybody</label
        >
        <label v-for="(name, i) in times.hosts" :key="name" :class="{ on: host === i }"
          ><input v-model="host" type="radio" name="host" class="visually-hidden" :value="i" />{{ name }}</label
        >
      </fieldset>
      <ZoneSwitch v-model="zone" :first="first" :all="all" />
      <VisitorTimes :model-value="chosen" :shown="shown" :zone="zone" :offered="offered" @update:model-value="choose" />
      <form v-if="chosen" ref="details" class="stack details" novalidate @submit.prevent="book">
        <h2>{{ moment(chosen) }} {{ place }} time</h2>
        <div v-if="fault?.code === 'taken'" class="done" role="alert">
          <p>{{ fault.message }}</p>
          <p class="times">
            <button v-for="one in nearest" :key="one" type="button" @click="choose(one)">{{ moment(one) }}</button>
          </p>
        </div>
        <label class="field"
          ><span>Your name</span
          ><input v-model="form.name" autocomplete="name" maxlength="120" :aria-invalid="!!at('/name')" /><em
            v-if="at('/name')"
            role="alert"
            >{{ at('/name') }}</em
          ></label
        >
        <label class="field"
          ><span>Your mail address</span
          ><input
            v-model="form.email"
            type="email"
            autocomplete="email"
            maxlength="254"
            :aria-invalid="!!at('/email')"
          /><em v-if="at('/email')" role="alert">{{ at('/email') }}</em></label
        >
        <VisitorQuestions v-model="form.answers" :questions="times.questions" :fault="i => at(`/answers/${i}`)" />
        <p v-if="fault && fault.code !== 'taken' && !atField" class="alarm" role="alert">{{ fault.message }}</p>
        <button type="submit" class="button" :disabled="isBooking">
          {{ isBooking ? 'Booking …' : times.proof ? 'Book it, and confirm by mail' : 'Book it' }}
        </button>
      </form>
    </template>
  </div>
</template>

<style scoped>
.details {
  border-top: 1px solid var(--line);
  padding-top: 16px;
}
</style>
