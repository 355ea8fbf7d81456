<script setup lang="ts">
import { computed, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { useMeetings } from '../composables/useSeries'
import { now } from '../present'

/**
 * Where the address of a calendar entry leads: the agenda of the date that is on or next, and for half a day the
 * minutes of the one before.
 */
const { id } = defineProps<{ id: string }>()
const HALF_A_DAY_MS = 12 * 3_600_000
const router = useRouter()
const coming = useMeetings(() => id, false)
const gone = useMeetings(() => id, true)
const held = (state: string) => state !== 'called_off'
const next = computed(() => coming.meetings.value?.find(meeting => held(meeting.state)))
const last = computed(() => gone.meetings.value?.find(meeting => held(meeting.state)))
const away = (at: string) => Math.abs(Date.parse(at) - now())
const nearest = computed(() => {
  if (!next.value || !last.value) return next.value ?? last.value
  return away(last.value.endsAt) < HALF_A_DAY_MS && away(next.value.startsAt) > HALF_A_DAY_MS ? last.value : next.value
})
watchEffect(() => {
  const waits = [coming, gone].some(list => !list.meetings.value && !list.error.value)
  if (waits) return
  router.replace(nearest.value ? `/meetings/${nearest.value.id}` : `/series/${id}`)
})
</script>

<template>
  <p class="desk" role="status">One moment …</p>
</template>
