<script setup lang="ts">
import { ref } from 'vue'
import type { Person } from '../api/client'
import { usePlaces } from '../composables/usePlaces'
import { useRemoval } from '../composables/useRemoval'
import { count } from '../time'
import PlaceForm from './PlaceForm.vue'

/** Rooms and equipment. */
const { people, mayKeep, timeZone, adding } = defineProps<{
  people: Person[]
  mayKeep: boolean
  timeZone: string
  adding?: boolean
}>()
const { places } = usePlaces()
const { isThere } = useRemoval()
const open = ref(!!adding && mayKeep)
</script>

<template>
  <div class="row spread">
    <p class="eyebrow">{{ count(places?.length ?? 0, 'place') }}</p>
    <v-btn v-if="mayKeep" size="small" @click="open = true">Add a place</v-btn>
  </div>
  <p v-if="places?.length === 0" class="soft">
    No place yet. A room or a piece of equipment can be held for a meeting, and for one only.
  </p>
  <ul class="ruled">
    <li v-for="place in places?.filter(isThere)" :key="place.id" class="line">
      <router-link class="strong" :to="`/places/${place.id}`">{{ place.name }}</router-link>
      <span class="soft"
        >{{ place.kind === 'room' ? 'room' : 'equipment'
        }}<template v-if="place.seats"> · {{ place.seats }} seats</template></span
      >
      <span class="soft">{{ place.equipment.join(', ') }}</span>
      <span class="soft">{{ place.zoneCity }}</span>
    </li>
  </ul>
  <PlaceForm v-model="open" :place="null" :people="people" :time-zone="timeZone" />
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1.2fr 1fr 1.6fr 1fr;
  gap: 16px;
}
@media (max-width: 860px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
