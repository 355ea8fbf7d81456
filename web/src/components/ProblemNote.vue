<script setup lang="ts">
defineProps<{ error: Error | null | undefined }>()
</script>

<template>
  <p v-if="error" class="problem" role="alert">{{ error.message }}</p>
</template>

<style scoped>
.problem { border-left: 4px solid var(--stuck); padding: 8px 12px; background: var(--sheet); color: var(--stuck-ink); }
</style>
