<script setup lang="ts">
import MissedMeetings from '../components/MissedMeetings.vue'
import PageComing from '../components/PageComing.vue'
import { useCatchingUp } from '../composables/useCatchingUp'
import { useTitle } from '../composables/useTitle'
import { count, longDay } from '../time'

/** What somebody has missed of a series since they were last there. */
const { id } = defineProps<{ id: string }>()
const { missed, error } = useCatchingUp(() => id)
useTitle(() => missed.value && `Catching up: ${missed.value.series.name}`)
</script>

<template>
  <div class="desk">
    <PageComing v-if="!missed" name="Catching up" :error="error" />
    <template v-else>
      <p class="eyebrow">Catching up</p>
      <h1>
        <router-link :to="`/series/${missed.series.id}`">{{ missed.series.name }}</router-link>
      </h1>
      <p class="soft head">
        <template v-if="missed.meetings.length">
          {{ count(missed.meetings.length, 'meeting') }} without you{{
            missed.since ? ` since you were there on ${longDay(missed.since)}` : ''
          }}.
        </template>
        <template v-else>You have missed nothing.</template>
      </p>
      <MissedMeetings :meetings="missed.meetings" linked />
    </template>
  </div>
</template>

<style scoped>
h1 a {
  color: inherit;
  text-decoration: none;
}
.head {
  margin: 4px 0 16px;
}
</style>
