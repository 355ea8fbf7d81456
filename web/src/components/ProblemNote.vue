<script setup lang="ts">
import { computed } from 'vue'
import { ProblemError } from '../api/client'

/** What went wrong, in its own words; where fields are at fault that show nothing themselves, each of them. */
const { error } = defineProps<{ error: Error | null | undefined }>()
const details = computed(() => (error instanceof ProblemError ? error.problem.errors ?? [] : []).filter(fault => fault.detail && fault.detail !== error?.message).map(fault => ({ name: nameOf(fault.pointer), detail: fault.detail })))
/** "/run/lengthMin" → "Length min" */
function nameOf(pointer: string) {
  const last = pointer.split('/').filter(part => !/^\d*$/.test(part)).at(-1) ?? ''
  const words = last.replace(/([A-Z])/g, ' $1').toLowerCase()
  return words.charAt(0).toUpperCase() + words.slice(1)
}
</script>

<template>
  <div v-if="error" class="problem" role="alert">
    <p v-if="details.length === 0 || !error.message.startsWith('Something is missing')">{{ error.message }}</p>
    <p v-for="fault in details" :key="fault.name + fault.detail"><b v-if="fault.name">{{ fault.name }}:</b> {{ fault.detail }}</p>
  </div>
</template>

<style scoped>
.problem { border-left: 4px solid var(--stuck); padding: 8px 12px; background: var(--sheet); color: var(--stuck-ink); overflow-wrap: anywhere; }
</style>
