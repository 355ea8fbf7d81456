<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { usePreparation } from '../composables/usePreparation'

/** What each place of the meeting is to have ready: chosen here, confirmed or refused by whoever looks after it. */
type Row = Schemas['SheetPreparations'][number]
const { sheet } = defineProps<{ sheet: Sheet }>()
const emit = defineEmits<{ show: [Sheet] }>()
const { ask, isAsking } = usePreparation(
  () => sheet.id,
  shown => emit('show', shown),
)
const chosen = ref<Record<string, string[]>>({})
watch(
  () => sheet.preparations,
  rows => (chosen.value = Object.fromEntries(rows.map(row => [row.placeId, [...row.chosen]]))),
  { immediate: true },
)
const changed = (row: Row) =>
  JSON.stringify([...(chosen.value[row.placeId] ?? [])].sort()) !== JSON.stringify([...row.chosen].sort())
const WORDS = { asked: 'Asked, not confirmed yet', confirmed: 'Confirmed', refused: 'Said no' }
</script>

<template>
  <section
    v-for="row in sheet.preparations"
    :key="row.placeId"
    class="ready"
    :aria-label="`To be ready in ${row.place}`"
  >
    <h2 class="eyebrow">To be ready in {{ row.place }}</h2>
    <p
      v-if="row.state"
      class="small strong"
      :class="{ confirmed: 'fresh', refused: 'alarm', asked: 'carried' }[row.state]"
    >
      {{ WORDS[row.state] }}<template v-if="row.word">: {{ row.word }}</template>
    </p>
    <p v-if="!row.lookedAfterBy" class="small carried">Nobody looks after it yet.</p>
    <ul>
      <li v-for="offer in row.offers" :key="offer.name">
        <label
          ><input v-model="chosen[row.placeId]" type="checkbox" :value="offer.name" /> {{ offer.name
          }}<span v-if="offer.beforeMin" class="soft small">, {{ offer.beforeMin }} min before</span></label
        >
      </li>
    </ul>
    <p v-if="changed(row) && row.lookedAfterBy" class="row small">
      <v-btn
        size="small"
        variant="outlined"
        :loading="isAsking"
        @click="ask({ placeId: row.placeId, items: chosen[row.placeId] ?? [] })"
        >Tell {{ row.lookedAfterBy }}</v-btn
      >
    </p>
  </section>
</template>

<style scoped>
.ready {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
</style>
