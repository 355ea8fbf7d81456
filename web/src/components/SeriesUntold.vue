<script setup lang="ts">
import { computed } from 'vue'
import type { Series } from '../api/client'
import { untoldWords } from '../untold'

/** Who has not been told what holds, and what has changed since. */
const { told } = defineProps<{ told: Series['told'] }>()
const words = computed(
  () =>
    ({
      never: 'Nobody has been told of this series yet.',
      changed: `Not everything has been told yet: ${told.untold ? untoldWords(told.untold) : ''}.`,
      told: '',
    })[told.state],
)
</script>

<template>
  <div v-if="words" class="untold" role="status">
    <p>{{ words }}</p>
    <ul v-if="told.untold?.changes.length" class="small">
      <li v-for="change in told.untold.changes" :key="change.label + change.before">
        <b>{{ change.label }}</b> <del v-if="change.before" class="soft">{{ change.before }}</del>
        {{ change.after ?? 'none' }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.untold {
  margin-top: 12px;
  padding: 8px 14px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
}
</style>
