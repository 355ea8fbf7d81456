<script setup lang="ts">
import { computed } from 'vue'
import type { Sheet } from '../api/client'
import { useDeputies } from '../composables/useDeputies'
import { list } from '../time'

/** Who else may write and hold this meeting; those of the whole series are named on its page. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const { setAt } = useDeputies()
const here = computed(() => sheet.deputies.filter(one => !one.series))
const others = computed(() =>
  sheet.people.filter(
    person =>
      person.role !== 'informed' &&
      ![sheet.keeper.id, sheet.chair.id, ...sheet.deputies.map(one => one.id)].includes(person.id),
  ),
)
const ofSeries = computed(() => list(sheet.deputies.filter(one => one.series).map(one => one.name)))
function add(event: Event) {
  const field = event.target as HTMLSelectElement
  if (field.value) setAt({ meetingId: sheet.id, personId: field.value, deputy: true })
  field.value = ''
}
</script>

<template>
  <div class="deputies small">
    <p v-if="ofSeries" class="soft">May write as well: {{ ofSeries }}</p>
    <p v-for="one in here" :key="one.id" class="row spread">
      <span>{{ one.name }} may write this time</span>
      <button
        v-if="sheet.may.nameDeputy"
        type="button"
        class="quiet small"
        :aria-label="`May not write any more: ${one.name}`"
        @click="setAt({ meetingId: sheet.id, personId: one.id, deputy: false })"
      >
        Remove
      </button>
    </p>
    <select v-if="sheet.may.nameDeputy && others.length" class="in-line" aria-label="May write this time" @change="add">
      <option value="">Who else may write …</option>
      <option v-for="person in others" :key="person.id" :value="person.id">{{ person.name }}</option>
    </select>
  </div>
</template>

<style scoped>
.deputies {
  margin-top: 6px;
}
</style>
