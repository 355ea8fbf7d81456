<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useActionList } from '../composables/useActions'

/** To which other series an action or a topic goes. */
const { except, verb = 'Hand it over' } = defineProps<{ except: string[]; verb?: string }>()
const emit = defineEmits<{ to: [seriesId: string, title: string]; cancel: [] }>()
// The list of actions knows the series somebody takes part in.
const { series } = useActionList({ whose: 'all', state: 'open', group: 'due' })
const others = computed(() => series.value.filter(one => !except.includes(one.id)))
const chosen = ref<string | null>(null)
const box = useTemplateRef<HTMLSelectElement>('box')
onMounted(() => box.value?.focus())

function hand() {
  const there = others.value.find(one => one.id === chosen.value)
  if (there) emit('to', there.id, there.name)
}
</script>

<template>
  <form class="why" novalidate @submit.prevent="hand" @keydown.esc="emit('cancel')">
    <select ref="box" v-model="chosen" aria-label="The series it goes to">
      <option :value="null" disabled>To which series?</option>
      <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
    <button class="quiet" :disabled="!chosen">{{ verb }}</button>
    <button type="button" class="quiet" @click="emit('cancel')">Cancel</button>
  </form>
</template>

<style scoped>
.why {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 6px;
}
select {
  flex: 1 1 160px;
  min-width: 0;
  padding: 5px 8px;
  border: 1px solid var(--line);
  border-radius: 3px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
}
</style>
