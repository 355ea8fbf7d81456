<script setup lang="ts">
import { computed } from 'vue'
import { CALLS, REPEATS, SHOWS, TELLS, type AskForm } from '../asking'
import MomentField from './MomentField.vue'
import PlaceFields from './PlaceFields.vue'
import { useFaults } from '../composables/useFaults'

/** Until when, who sees what, and what it becomes; each with what holds when nothing is said. */
const { error, aim, timeZone } = defineProps<{ error: Error | null; aim: string; timeZone: string }>()
const form = defineModel<AskForm>({ required: true })
const { at } = useFaults(() => error)
const outcomes = computed(() => [
  { value: 'meeting', title: 'A single meeting' },
  { value: 'series', title: 'A series' },
  ...(form.value.meetingId ? [{ value: 'move', title: `The new time of ${aim}` }] : []),
  ...(form.value.seriesId ? [{ value: 'within', title: `Another date of ${aim}` }] : []),
])
const repeats = Object.entries(REPEATS).map(([value, one]) => ({ value, title: one.title }))
const made = computed(() => ['meeting', 'series'].includes(form.value.outcome))
</script>

<template>
  <div class="settings">
    <v-select v-model="form.outcome" :items="outcomes" label="It becomes" :error-messages="at('/meetingId')" />
    <template v-if="form.outcome === 'series'">
      <v-select v-model="form.repeat" :items="repeats" label="Repeats" :error-messages="at('/rule')" />
      <v-text-field v-model.number="form.count" type="number" min="1" max="400" label="Meetings" hint="empty: no end" />
    </template>
    <v-select v-if="made" v-model="form.callKind" :items="CALLS" label="Call" :error-messages="at('/call/kind')" />
    <PlaceFields v-if="made" v-model="form" plain :error="error" class="across" />
    <MomentField
      v-model="form.closes"
      label="Answers until"
      usual="16:00"
      :time-zone="timeZone"
      :error-messages="at('/closesAt')"
      class="across"
    />
    <p class="small soft across">
      Without a date: two working days, and before the first of the times. Whoever is silent is reminded at half-time.
    </p>
    <v-select v-model="form.shows" :items="SHOWS" label="Others’ answers" class="across" />
    <v-select v-model="form.tells" :items="TELLS" label="You are told" />
    <v-checkbox v-model="form.holdsTimes" label="Hold all these times for me meanwhile" class="across" />
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 12px;
  align-items: start;
}
.across {
  grid-column: 1 / -1;
}
</style>
