<script setup lang="ts">
import type { Schemas } from '../api/client'
import { DOORS } from '../calls'

/** The door of the calls of a series: who walks in, when it is open, what holds inside. */
const door = defineModel<Schemas['Door']>({ required: true })
const POLICIES = Object.entries(DOORS).map(([value, title]) => ({ value, title }))
const BEFORE = [0, 5, 10, 15, 30, 60].map(value => ({
  value,
  title: value ? `${value} minutes before` : 'at the start',
}))
const AFTER = [0, 15, 30, 60, 120].map(value => ({ value, title: value ? `${value} minutes after` : 'at the end' }))
const PRESENTERS = [
  { value: 'everybody', title: 'everybody' },
  { value: 'host', title: 'keeper, chair and deputies' },
]
</script>

<template>
  <div class="door">
    <v-select v-model="door.policy" :items="POLICIES" label="At the door" class="wide" />
    <v-select v-model="door.opensMin" :items="BEFORE" label="Opens" />
    <v-select v-model="door.staysMin" :items="AFTER" label="Closes" />
    <v-select v-model="door.presents" :items="PRESENTERS" label="May present" />
    <v-checkbox v-model="door.quiet" label="Quiet on entry" />
    <v-checkbox v-model="door.records" label="Recorded: said in the invitation and before one enters" class="wide" />
  </div>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 500px) {
  .door {
    grid-template-columns: 1fr;
  }
}
</style>
