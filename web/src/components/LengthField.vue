<script setup lang="ts">
import { lengthWords, readLength } from '../reading'
import TypedField from './TypedField.vue'

/** How long something takes, in minutes, typed freely: "45", "1:30", "2 h". */
defineProps<{ label: string; errorMessages?: string | string[] }>()
const minutes = defineModel<number | ''>({ required: true })
const STEP_MIN = 5
</script>

<template>
  <TypedField
    v-model="minutes"
    :label="label"
    :error-messages="errorMessages"
    :read="readLength"
    :write="lengthWords"
    :step="(value, by) => Math.max(STEP_MIN, (value ?? 0) + by * STEP_MIN)"
    wrong="Write it like 45 or 1:30."
  />
</template>
