<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'
import type { Sheet } from '../api/client'

/** What is worth a look before the minutes are issued, each leading to its place. None of it is forced. */
defineProps<{ gaps: Sheet['gaps'] }>()
const emit = defineEmits<{ go: [gap: Sheet['gaps'][number]] }>()

// After closing, this is what comes next.
const head = useTemplateRef('head')
onMounted(() => head.value?.focus())
</script>

<template>
  <section class="gaps" aria-labelledby="gaps">
    <h2 id="gaps" ref="head" class="eyebrow" tabindex="-1">Before you issue · {{ gaps.length }}</h2>
    <p v-if="gaps.length === 0" class="fresh strong small">Nothing is missing.</p>
    <ul>
      <li v-for="gap in gaps" :key="`${gap.kind}-${gap.lineId ?? gap.topicId}-${gap.words}`">
        <button v-if="gap.lineId || gap.topicId" type="button" class="quiet" @click="emit('go', gap)">
          {{ gap.words }}
        </button>
        <span v-else>{{ gap.words }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.gaps {
  margin-bottom: 16px;
  padding-bottom: 12px;
  border-bottom: 1px solid var(--line);
}
h2:focus-visible {
  outline: none;
}
li {
  padding: 3px 0;
}
button {
  text-align: left;
  font-weight: 500;
}
</style>
