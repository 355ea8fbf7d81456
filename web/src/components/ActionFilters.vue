<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import type { ActionFilter } from '../composables/useActions'

/** What a list of actions is narrowed to, and what it is put in order by. */
const { series, people } = defineProps<{ series: Schemas['Named'][]; people: Schemas['Named'][] }>()
const filter = defineModel<ActionFilter>({ required: true })

const set = (part: Partial<ActionFilter>) => {
  filter.value = { ...filter.value, ...part }
}
const WHICH = [
  { title: 'all', value: null },
  { title: 'overdue', value: 'overdue' },
  { title: 'due within a week', value: 'due' },
  { title: 'stuck', value: 'stuck' },
  { title: 'with no owner', value: 'no_owner' },
  { title: 'with no date', value: 'no_date' },
]
const GROUPS = [
  { title: 'by due date', value: 'due' },
  { title: 'by series', value: 'series' },
  { title: 'by owner', value: 'owner' },
]
const named = (one: Schemas['Named']) => ({ title: one.name, value: one.id })
const whose = computed(() => [
  { title: 'mine', value: 'mine' },
  { title: 'everybody’s', value: 'all' },
  ...people.map(named),
])
const where = computed(() => [{ title: 'all series', value: null }, ...series.map(named)])
</script>

<template>
  <div class="filters">
    <v-select :model-value="filter.whose" :items="whose" label="Whose" @update:model-value="whose => set({ whose })" />
    <v-select
      :model-value="filter.state"
      :items="['open', 'closed']"
      label="State"
      @update:model-value="state => set({ state, only: undefined })"
    />
    <v-select
      v-if="filter.state === 'open'"
      :model-value="filter.only ?? null"
      :items="WHICH"
      label="Only"
      @update:model-value="only => set({ only: (only ?? undefined) as ActionFilter['only'] })"
    />
    <v-select
      :model-value="filter.seriesId ?? null"
      :items="where"
      label="Series"
      @update:model-value="id => set({ seriesId: id ?? undefined })"
    />
    <v-select
      :model-value="filter.group"
      :items="GROUPS"
      label="In order"
      @update:model-value="group => set({ group: group as ActionFilter['group'] })"
    />
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 12px;
  margin: 12px 0 14px;
}
</style>
