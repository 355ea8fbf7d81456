<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { initialsOf } from '../asking'
import { clock, list, shortDay } from '../time'

/** A time as a bar of the people themselves: who it suits, for whom it is possible, who cannot, who is silent. */
const { time, people, chosen } = defineProps<{
  time: Schemas['PolledTime']
  people: Map<string, Schemas['PolledPerson']>
  chosen: boolean
}>()
defineEmits<{ choose: [] }>()
const PARTS = [
  { kind: 'suits', word: 'suits' },
  { kind: 'possible', word: 'possible' },
  { kind: 'cannot', word: 'cannot' },
  { kind: 'silent', word: 'silent' },
] as const
const parts = computed(() => PARTS.map(part => ({ ...part, ids: time[part.kind] })).filter(part => part.ids.length))
const nameOf = (id: string) => people.get(id)?.name ?? ''
</script>

<template>
  <li class="plank" :class="{ best: time.best, chosen }">
    <button type="button" class="when" :aria-pressed="chosen" @click="$emit('choose')">
      <span class="strong">{{ shortDay(time.localStart) }}, {{ clock(time.localStart) }}</span>
      <span class="small soft">{{ time.past ? 'past' : time.elsewhere.join(' · ') }}</span>
    </button>
    <div class="bar">
      <div v-for="part in parts" :key="part.kind" :class="['part', part.kind]" :style="{ flexGrow: part.ids.length }">
        <span v-for="id in part.ids" :key="id" class="who" :title="`${nameOf(id)}: ${part.word}`"
          ><span aria-hidden="true">{{ initialsOf(nameOf(id)) }}</span
          ><span class="visually-hidden">{{ nameOf(id) }}, </span></span
        >
        <span class="number">{{ part.kind === 'suits' ? 'suits ' : '' }}{{ part.ids.length }}</span
        ><span class="visually-hidden">{{ part.word }}</span>
      </div>
    </div>
    <p class="small why" :class="{ fresh: time.best, strong: time.best }">
      {{ time.reason }}
      <span v-if="time.filledUp.length" class="carried"
        >Filled up since it was offered: {{ time.filledUp.join(', ') }}.</span
      >
      <span v-if="time.alsoAsked.length" class="carried">Also put to people in {{ list(time.alsoAsked) }}.</span>
    </p>
  </li>
</template>

<style scoped>
.plank {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr) 230px;
  gap: 6px 18px;
  align-items: center;
  padding: 11px 16px;
  border-left: 4px solid transparent;
}
.plank.best {
  border-left-color: var(--pine);
}
.plank.chosen {
  background: var(--pine-pale);
}
.when {
  display: grid;
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.when .strong {
  font-size: 1.0714rem;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 0;
  min-width: 0;
}
.part {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-items: center;
  align-content: start;
  flex-basis: 0;
  min-width: fit-content;
  padding: 4px 7px;
  border: 1px solid transparent;
}
.who {
  min-width: 25px;
  padding: 1px 4px;
  border-radius: 9px;
  font-size: 0.7857rem;
  font-weight: 650;
  text-align: center;
  background: rgb(255 255 255 / 22%);
}
.number {
  font-size: 0.8214rem;
  font-weight: 650;
  white-space: nowrap;
}
.suits {
  background: var(--pine);
  color: rgb(var(--v-theme-on-primary));
}
.possible {
  background: var(--gold);
  color: #17231f;
}
.cannot {
  border-color: var(--alarm);
  color: var(--alarm-ink);
  background: repeating-linear-gradient(135deg, rgb(191 68 38 / 14%) 0 6px, transparent 6px 12px), var(--sheet);
}
.cannot .who {
  background: var(--sheet);
  text-decoration: line-through;
}
.silent {
  border: 1px dashed var(--soft);
  color: var(--soft);
  background: var(--sheet);
}
.silent .who {
  background: none;
}
@media (max-width: 900px) {
  .plank {
    grid-template-columns: minmax(0, 1fr);
  }
  .part {
    min-width: min-content;
  }
}
</style>
