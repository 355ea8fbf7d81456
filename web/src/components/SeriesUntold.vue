<script setup lang="ts">
import { computed } from 'vue'
import type { Series } from '../api/client'
import { count, list } from '../time'

/** Who has not been told what holds, and what has changed since. */
const { told } = defineProps<{ told: Series['told'] }>()
const persons = (number: number) => count(number, 'person')
const untoldWords = computed(() => {
  const untold = told.untold
  if (!untold) return ''
  const changed = untold.people - untold.invited - untold.takenOff - untold.calledOff - untold.broughtBack
  const said: [number, string][] = [
    [untold.invited, 'to invite'],
    [changed, 'to tell of changes'],
    [untold.calledOff, 'to tell that it is called off'],
    [untold.broughtBack, 'to tell that it takes place after all'],
    [untold.takenOff, 'to tell not to come'],
  ]
  return list(said.filter(([number]) => number > 0).map(([number, words]) => `${persons(number)} ${words}`))
})
const words = computed(
  () =>
    ({
      never: 'Nobody has been told of this series yet.',
      changed: `Not everything has been told yet: ${untoldWords.value}.`,
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
