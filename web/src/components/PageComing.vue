<script setup lang="ts">
import ProblemNote from './ProblemNote.vue'

/** A page that is on its way: it says at once which it is. */
defineProps<{ name: string; error?: Error | null }>()
</script>

<template>
  <div class="stack">
    <h1>{{ name }}</h1>
    <ProblemNote v-if="error" :error="error" />
    <template v-else>
      <p class="soft" role="status">It is being read …</p>
      <v-progress-linear indeterminate color="primary" :aria-label="`${name} is being read`" />
    </template>
  </div>
</template>
