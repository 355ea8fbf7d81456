<script setup lang="ts">
import { clockOf, minutesOf, readTime } from '../reading'
import TypedField from './TypedField.vue'

/** A time of day on the 24-hour clock, typed freely: "9", "9.30", "1430". Arrow keys take a quarter of an hour. */
defineProps<{ label: string; errorMessages?: string | string[] }>()
const time = defineModel<string>({ required: true })
const QUARTER_MIN = 15
const step = (value: string | null, by: number) =>
  clockOf(Math.floor((value ? minutesOf(value) : 9 * 60) / QUARTER_MIN) * QUARTER_MIN + by * QUARTER_MIN)
</script>

<template>
  <TypedField
    v-model="time"
    :label="label"
    :error-messages="errorMessages"
    :read="readTime"
    :write="value => value.slice(0, 5)"
    :step="step"
    wrong="Write it like 9.30 or 1430."
  />
</template>
