<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { clock, longDay, wallOf, zoneCity } from '../time'
import { api, dataOf, type Refusal } from './api'
import { useTimes } from './useTimes'
import VisitorTimes from './VisitorTimes.vue'

/** Another time for what is booked. */
const { id, token, zone, startsAt, fault, busy } = defineProps<{
  id: string
  token: string
  zone: string
  startsAt: string
  fault: Refusal | null
  busy: boolean
}>()
const emit = defineEmits<{ move: [startsAt: string]; cancel: [] }>()
const shown = useTimes(
  toRef(() => zone),
  wanted => dataOf(api.GET('/booking-links/{id}/{token}/times', { params: { path: { id, token }, query: wanted } })),
  wallOf(startsAt, zone),
)
const chosen = ref('')
// What is gone is gone from the list too.
watch(
  () => fault,
  refused => {
    if (refused) void shown.again()
  },
)
const words = (at: string) => `${longDay(wallOf(at, zone))}, ${clock(wallOf(at, zone))}`
const nearest = computed(() => fault?.problem.nearest ?? [])
</script>

<template>
  <div class="stack" role="group" aria-label="Move it">
    <VisitorTimes v-model="chosen" :shown="shown" :zone="zone" :offered="shown.ofDay" />
    <div v-if="fault" class="done" role="alert">
      <p>{{ fault.message }}</p>
      <p class="times">
        <button v-for="at in nearest" :key="at" type="button" @click="chosen = at">{{ words(at) }}</button>
      </p>
    </div>
    <p class="row">
      <button type="button" class="button" :disabled="!chosen || busy" @click="emit('move', chosen)">
        {{ chosen ? `Move it to ${words(chosen)} ${zoneCity(zone)} time` : 'Choose a time' }}
      </button>
      <button type="button" class="quiet" @click="emit('cancel')">Leave it where it is</button>
    </p>
  </div>
</template>
