<script setup lang="ts">
import { computed } from 'vue'
import { fieldName, ProblemError } from '../api/client'

/** What went wrong, in its own words; where several fields are at fault, each of them. */
const { error } = defineProps<{ error: Error | null | undefined }>()
const details = computed(() => {
  const faults = error instanceof ProblemError ? (error.problem.errors ?? []) : []
  return faults.length > 1 ? faults.map(fault => ({ name: fieldName(fault.pointer), detail: fault.detail })) : []
})
</script>

<template>
  <div v-if="error" class="problem" role="alert">
    <p v-if="details.length === 0">{{ error.message }}</p>
    <p v-for="fault in details" :key="fault.name + fault.detail">
      <b v-if="fault.name">{{ fault.name }}:</b> {{ fault.detail }}
    </p>
  </div>
</template>

<style scoped>
.problem {
  border-left: 4px solid var(--alarm);
  padding: 8px 12px;
  background: var(--sheet);
  color: var(--alarm-ink);
  overflow-wrap: anywhere;
}
</style>
