<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { count, list, mediumDay } from '../time'

/** How a rule suits those who must come: who is busy on which date, and whose hours it lies outside. */
const { check } = defineProps<{ check: Schemas['RunCheck'] }>()
const MOST_NAMED = 3
const busy = computed(() =>
  check.clashes
    .slice(0, MOST_NAMED)
    .map(clash => `${clash.headline} on ${mediumDay(clash.localStart)}`)
    .join('; '),
)
</script>

<template>
  <p class="small">
    <span v-if="check.clashes.length" class="alarm"
      >Somebody is busy on {{ check.clashes.length }} of {{ count(check.checked, 'date') }}: {{ busy
      }}{{ check.clashes.length > MOST_NAMED ? '; and more' : '' }}.</span
    >
    <span v-else class="fresh"
      >Nobody who must come is known to be busy
      {{ check.checked === 1 ? 'then' : `on any of the ${check.checked} dates` }}.</span
    >
    <span v-if="check.outside.length" class="carried">
      Some of it is outside the hours of {{ list(check.outside) }}.</span
    >
  </p>
</template>
