<script setup lang="ts">
import { toRefs } from 'vue'
import { clock, longDay, wallOf } from '../time'
import type { Schemas } from './api'
import MonthGrid from './MonthGrid.vue'
import type { FreeTimes } from './useTimes'

/** A month at a glance, and what is free on the day chosen there. */
const { shown, zone, offered } = defineProps<{
  shown: FreeTimes
  zone: string
  /** of the day's times, those that may be taken */
  offered: Schemas['BookableTimes']['days'][number]['times']
}>()
const chosen = defineModel<string>({ required: true })
const { day, month } = toRefs(shown)
const wall = (at: string) => wallOf(at, zone)
</script>

<template>
  <MonthGrid
    v-if="shown.times"
    v-model:day="day"
    :month="month"
    :free="shown.free"
    :first-month="shown.times.firstMonth"
    :last-month="shown.times.lastMonth"
    :busy="shown.busy"
    @month="of => (month = of)"
  />
  <p v-if="shown.error" class="alarm" role="alert">
    The times could not be read. <button type="button" class="quiet" @click="shown.again()">Try again</button>
  </p>
  <section v-else-if="offered.length" aria-labelledby="of-day" class="stack">
    <h2 id="of-day">{{ longDay(wall(offered[0]!.startsAt)) }}</h2>
    <div class="times">
      <button
        v-for="one in offered"
        :key="one.startsAt"
        type="button"
        :class="{ on: one.startsAt === chosen }"
        :aria-pressed="one.startsAt === chosen"
        @click="chosen = one.startsAt"
      >
        {{ clock(wall(one.startsAt)) }}
      </button>
    </div>
  </section>
  <p v-else class="soft" role="status">
    {{ shown.busy ? 'The times are being read …' : 'Nothing is free this month. Look at another one.' }}
  </p>
</template>
