<script setup lang="ts">
import { MARKS, markName, type MarkName } from '../marks'

/** The mark of a series, beside its title: a drawn sign with its name. */
defineProps<{ mark: MarkName | null }>()
</script>

<template>
  <svg
    v-if="mark"
    class="mark"
    width="18"
    height="18"
    viewBox="0 0 20 20"
    role="img"
    :aria-label="markName(mark)"
    :style="{ color: MARKS[mark].colour }"
  >
    <title>{{ markName(mark) }}</title>
    <path
      :d="MARKS[mark].path"
      fill="none"
      stroke="currentColor"
      stroke-width="1.8"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  </svg>
</template>

<style scoped>
.mark {
  vertical-align: -3px;
  margin-right: 6px;
  flex: none;
}
</style>
