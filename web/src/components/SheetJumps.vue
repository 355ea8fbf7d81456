<script setup lang="ts">
import type { Sheet } from '../api/client'

/** On a phone, what stands beside the sheet stands below it: here one gets there from anywhere. */
defineProps<{ sheet: Sheet }>()
const emit = defineEmits<{ line: [] }>()

function go(css: string) {
  const there = document.querySelector<HTMLElement>(css)
  there?.scrollIntoView({ block: 'start' })
  there?.focus({ preventScroll: true })
}
</script>

<template>
  <nav class="jumps no-print" aria-label="On this sheet">
    <button type="button" class="quiet" @click="emit('line')">Line</button>
    <button type="button" class="quiet" @click="go('#here')">Who is here</button>
    <button v-if="sheet.leftOver.length" type="button" class="quiet" @click="go('#left')">Left over</button>
    <button v-if="sheet.state === 'closed' && sheet.may.hold" type="button" class="quiet" @click="go('#gaps')">
      Before you issue
    </button>
    <button v-if="sheet.may.hold" type="button" class="quiet" @click="go('[data-next] button')">
      {{ sheet.state === 'closed' ? 'Issue' : 'Close' }}
    </button>
  </nav>
</template>

<style scoped>
.jumps {
  display: none;
}
@media (max-width: 860px) {
  .jumps {
    position: sticky;
    top: 0;
    z-index: 3;
    display: flex;
    gap: 4px 10px;
    overflow-x: auto;
    padding: 4px 12px;
    background: var(--sheet);
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
  }
}
</style>
