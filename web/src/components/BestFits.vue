<script setup lang="ts">
import { computed } from 'vue'
import FitCard from './FitCard.vue'
import type { Schemas } from '../api/client'
import { takingOne, type Taking } from '../commonTime'
import type { Fit } from '../composables/useCommonTime'
import { list } from '../time'

/** The times that suit best, a page at a time, what can be done with each, and what would help. */
const { found, chosen } = defineProps<{
  found: Schemas['CommonTime'] | undefined
  chosen: Fit | undefined
  mayMove: boolean
  isMoving: boolean
}>()
const page = defineModel<number>('page', { required: true })
const emit = defineEmits<{
  choose: [startsAt: string]
  move: [Fit]
  take: [Taking]
  ask: [startsAt: string[]]
  help: [Schemas['Remedy']]
}>()
// Where a calendar does not tell, whoever must come is asked.
const unknown = computed(() => found?.people.filter(one => one.role === 'required' && !one.known) ?? [])
const MOST_ASKED = 5
/** The best that do not lie on each other. */
const apart = computed(() => {
  const chosen: Fit[] = []
  for (const fit of fits.value) {
    const free = chosen.every(one => one.endsAt <= fit.startsAt || one.startsAt >= fit.endsAt)
    if (free && chosen.length < MOST_ASKED) chosen.push(fit)
  }
  return chosen.map(fit => fit.startsAt)
})
/** Whether the chosen time is this one, or begins within this stretch. */
function isIn(fit: Fit) {
  if (!chosen) return false
  const at = Date.parse(chosen.startsAt)
  const { firstAt, lastAt } = fit.stretch ?? { firstAt: fit.startsAt, lastAt: fit.startsAt }
  return at >= Date.parse(firstAt) && at <= Date.parse(lastAt)
}
// One that was chosen elsewhere stands above those of the list.
const fits = computed(() => {
  const listed = found?.fits ?? []
  return !chosen || listed.some(isIn) ? listed : [chosen, ...listed]
})
/** What is done with a card is done at the start that is chosen. */
const atOf = (fit: Fit) => (chosen && isIn(fit) ? chosen : fit)
</script>

<template>
  <aside class="right" aria-label="Best fits">
    <h2 class="eyebrow">Best fits</h2>
    <FitCard
      v-for="fit in fits"
      :key="fit.startsAt"
      :fit="fit"
      :at="isIn(fit) ? chosen!.startsAt : null"
      :time-zone="found?.timeZone ?? 'UTC'"
      @choose="startsAt => emit('choose', startsAt)"
    >
      <v-btn v-if="mayMove" size="small" :loading="isMoving" @click="emit('move', atOf(fit))">Move it here</v-btn>
      <v-btn size="small" :variant="mayMove ? 'outlined' : 'flat'" @click="emit('take', takingOne('hold', atOf(fit)))"
        >Hold this time</v-btn
      ><v-btn size="small" variant="outlined" @click="emit('take', takingOne('meeting', atOf(fit)))"
        >Make a meeting</v-btn
      >
    </FitCard>
    <div v-if="found?.fits.length" class="ask small" :class="{ offered: unknown.length }">
      <p v-if="unknown.length">
        No calendar tells of {{ list(unknown.map(one => one.name)) }}: ask {{ unknown.length === 1 ? 'them' : 'all' }}.
      </p>
      <button type="button" class="quiet" @click="emit('ask', apart)">Ask for times, beginning with these</button>
    </div>
    <p v-if="found && found.total > found.page * found.pageSize" class="row">
      <button type="button" class="quiet" @click="page++">Further fits</button
      ><button v-if="page > 1" type="button" class="quiet" @click="page = 1">The best again</button>
    </p>
    <section v-if="found?.remedies.length" aria-labelledby="helps" class="helps">
      <h2 id="helps" class="eyebrow">What would help</h2>
      <ul class="ruled">
        <li v-for="remedy in found.remedies" :key="remedy.sentence" class="small">
          <button type="button" class="quiet small help" @click="emit('help', remedy)">{{ remedy.sentence }}</button>
        </li>
      </ul>
    </section>
  </aside>
</template>

<style scoped>
.right {
  display: grid;
  gap: 10px;
}
.ask.offered {
  padding: 8px 12px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
}
.help {
  text-align: left;
}
.helps {
  margin-top: 8px;
}
</style>
