<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import DateField from './DateField.vue'
import TimeField from './TimeField.vue'

/** A day and a time on the wall, such as "2026-11-30T09:30"; empty until both are there. */
const {
  label,
  timeLabel = 'at',
  usual = '',
  errorMessages = undefined,
  timeZone = undefined,
} = defineProps<{
  label: string
  timeLabel?: string
  errorMessages?: string | string[]
  usual?: string
  timeZone?: string
}>()
const wall = defineModel<string>({ required: true })
const day = ref(wall.value.slice(0, 10))
const time = ref(wall.value.slice(11, 16) || usual)
const whole = computed(() => (day.value && time.value ? `${day.value}T${time.value}` : ''))
watch(whole, now => {
  if (now !== wall.value.slice(0, 16)) wall.value = now
})
watch(wall, now => {
  if (now.slice(0, 16) === whole.value) return
  if (now) day.value = now.slice(0, 10)
  if (now) time.value = now.slice(11, 16)
})
</script>

<template>
  <div class="moment" role="group" :aria-label="label">
    <DateField v-model="day" :label="label" :error-messages="errorMessages" :time-zone="timeZone" />
    <TimeField v-model="time" :label="timeLabel" />
  </div>
</template>

<style scoped>
.moment {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 96px;
  gap: 8px;
  width: 100%;
}
</style>
