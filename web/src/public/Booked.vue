<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, dataOf, type Refusal, type Schemas } from './api'
import NotYou from '../components/NotYou.vue'
import MoveBooking from './MoveBooking.vue'
import { useZone } from './useZone'
import ZoneSwitch from './ZoneSwitch.vue'

/** A booked time, for who has booked it: confirmed, moved or given back. Opening it changes nothing. */
const { id, token } = defineProps<{ id: string; token: string }>()
const path = { params: { path: { id, token } } }
const booking = ref<Schemas['Booking'] | null>(null)
const error = ref<Refusal | null>(null)
const fault = ref<Refusal | null>(null)
const busy = ref(false)
const moving = ref(false)
const giving = ref(false)
const said = ref('')
const near = computed(() => (booking.value ? [booking.value.timeZone, booking.value.hostZone] : []))
const { zone, first, all, place, moment, time } = useZone(near)

async function read() {
  error.value = null
  try {
    booking.value = await dataOf(api.GET('/booking-links/{id}/{token}', path))
  } catch (refused) {
    error.value = refused as Refusal
  }
}
async function attempt(deed: () => Promise<Schemas['Booking']>, words: string) {
  busy.value = true
  fault.value = null
  said.value = ''
  try {
    booking.value = await deed()
    said.value = words
    moving.value = giving.value = false
  } catch (refused) {
    fault.value = refused as Refusal
    // It stands differently by now: another tab, the host, or the notice that has run out.
    if (['state', 'late'].includes(fault.value.code)) {
      moving.value = giving.value = false
      await read()
    }
  } finally {
    busy.value = false
  }
}
const confirm = () =>
  attempt(
    () => dataOf(api.POST('/booking-links/{id}/{token}/confirmation', path)),
    'It is booked. The invitation is on its way.',
  )
const giveBack = () =>
  attempt(
    () => dataOf(api.DELETE('/booking-links/{id}/{token}', path)),
    'You have given it back; the host hears of it.',
  )
const move = (startsAt: string) =>
  attempt(
    () => dataOf(api.PUT('/booking-links/{id}/{token}', { ...path, body: { startsAt } })),
    'It is moved. The new invitation is on its way.',
  )
const STATES = {
  held: 'Held for you until you confirm it.',
  booked: '',
  given_back: 'You have given this back.',
  expired: 'This was held for 15 minutes, which are over.',
  called_off: 'The host has called this off.',
}
read()
</script>

<template>
  <section v-if="error?.status === 404" class="sheet stack" role="alert">
    <h1>This link is no longer valid</h1>
    <p>Perhaps it was long ago, or part of the link was lost. Look at the mail once more.</p>
  </section>
  <section v-else-if="error" class="sheet stack" role="alert">
    <h1>No connection just now</h1>
    <button type="button" class="button" @click="read()">Try again</button>
  </section>
  <p v-else-if="!booking" class="soft" role="status">It is being read …</p>
  <section v-else class="sheet stack">
    <header class="about">
      <p class="eyebrow">{{ booking.name }}, with {{ booking.hosts.join(' and ') }}</p>
      <h1>{{ booking.title }}</h1>
      <p class="strong">{{ moment(booking.startsAt) }}–{{ time(booking.endsAt) }} {{ place }} time</p>
      <p v-if="booking.location" class="soft">{{ booking.location }}</p>
      <p v-if="booking.callPath"><a :href="booking.callPath">The way into the call</a></p>
    </header>
    <ZoneSwitch v-model="zone" :first="first" :all="all" />
    <p v-if="said" class="done" role="status">{{ said }}</p>
    <p v-else-if="STATES[booking.state]" class="done">{{ STATES[booking.state] }}</p>
    <p v-if="booking.afterWords" class="words">{{ booking.afterWords }}</p>
    <ul v-if="booking.answers.length" class="small soft">
      <li v-for="one in booking.answers" :key="one.question">
        {{ one.question }} {{ one.answer === true ? 'Yes' : one.answer }}
      </li>
    </ul>
    <p v-if="fault && fault.code !== 'taken'" class="alarm" role="alert">{{ fault.message }}</p>
    <p v-if="booking.state === 'held'">
      <button type="button" class="button" :disabled="busy" @click="confirm">Confirm it</button>
    </p>
    <p v-if="booking.mayChange && !moving && !giving" class="row">
      <button type="button" class="button plain" @click="moving = true">Move it</button>
      <button type="button" class="quiet" @click="giving = true">I cannot: give it back</button>
    </p>
    <p v-else-if="booking.state === 'booked' && !booking.mayChange" class="small soft">
      It is too near to be changed here. Please write to the host.
    </p>
    <div v-if="giving" class="stack" role="group" aria-label="Give it back">
      <p>The time is free for others then, and the meeting is called off.</p>
      <p class="row">
        <button type="button" class="button" :disabled="busy" @click="giveBack">Give it back</button>
        <button type="button" class="quiet" @click="giving = false">Keep it</button>
      </p>
    </div>
    <MoveBooking
      v-if="moving"
      :id="id"
      :token="token"
      :zone="zone"
      :starts-at="booking.startsAt"
      :fault="fault?.code === 'taken' ? fault : null"
      :busy="busy"
      @move="move"
      @cancel="moving = false"
    />
    <NotYou :name="booking.name" :from="booking.hosts.join(' or ')" />
    <p v-if="['given_back', 'expired', 'called_off'].includes(booking.state) && booking.bookPath">
      <a :href="booking.bookPath">Take another time</a>
    </p>
  </section>
</template>
