<script setup lang="ts">
import { computed, watch } from 'vue'
import { ProblemError } from '../api/client'
import { usePlaces } from '../composables/usePlaces'
import { useFaults } from '../composables/useFaults'

/**
 * Where it meets: a place that is held for it, and words beside it. A place that is taken says what is free instead.
 */
const { error } = defineProps<{ error: Error | null; plain?: boolean }>()
const form = defineModel<{
  place: string
  placeId: string | null
  beforeMin: number
  afterMin: number
  placeAnyway?: boolean
  alsoPlaceIds?: string[]
}>({ required: true })
const { places } = usePlaces()
const choices = computed(() =>
  (places.value ?? []).map(place => ({
    title: `${place.name}${place.seats ? `, ${place.seats} seats` : ''}`,
    value: place.id,
  })),
)
const taken = computed(() =>
  error instanceof ProblemError && ['place-taken', 'place-unfit'].includes(error.code) ? error : null,
)
const unfit = computed(() => error instanceof ProblemError && error.code === 'place-unfit' && !form.value.placeAnyway)
const { at } = useFaults(() => error)
watch(
  () => form.value.placeId,
  () => {
    form.value.placeAnyway = false
  },
)
</script>

<template>
  <div class="place">
    <v-select
      v-if="choices.length"
      v-model="form.placeId"
      :items="choices"
      label="Room or equipment"
      clearable
      :error-messages="form.placeAnyway ? undefined : (taken?.message ?? at('/placeId'))"
    />
    <v-select
      v-if="form.alsoPlaceIds && choices.length > 1"
      v-model="form.alsoPlaceIds"
      :items="choices.filter(choice => choice.value !== form.placeId)"
      label="And also, such as equipment"
      multiple
      chips
      closable-chips
      :error-messages="at('/alsoPlaceIds')"
    />
    <template v-if="form.placeId && !plain">
      <v-text-field
        v-model.number="form.beforeMin"
        type="number"
        min="0"
        max="240"
        label="Set-up, min"
        :error-messages="at('/beforeMin')"
        class="short"
      />
      <v-text-field
        v-model.number="form.afterMin"
        type="number"
        min="0"
        max="240"
        label="Run-over, min"
        :error-messages="at('/afterMin')"
        class="short"
      />
    </template>
    <p v-for="free in taken?.problem.places ?? []" :key="free.id" class="instead">
      <button type="button" class="quiet" @click="form.placeId = free.id">Take {{ free.name }} instead</button>
    </p>
    <p v-if="unfit" class="instead">
      <button type="button" class="quiet" @click="form.placeAnyway = true">Hold it all the same, and save</button>
    </p>
    <v-checkbox
      v-if="form.placeAnyway"
      v-model="form.placeAnyway"
      label="Held though it does not quite fit"
      class="instead"
    />
    <v-text-field v-model="form.place" label="Where else, or how to find it" class="words" />
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.place > * {
  flex: 1 1 200px;
}
.place > .short {
  flex: 0 0 130px;
}
.place > .words {
  flex: 1 1 100%;
}
.instead {
  flex: 1 1 100%;
}
</style>
