<script setup lang="ts">
import { computed } from 'vue'
import { useTimeZones } from '../composables/usePeople'
import { plain } from '../plain'
import { zoneCity } from '../time'

/** A time zone, found by its place: "lisbon". */
defineProps<{ label?: string; errorMessages?: string | string[] }>()
const zone = defineModel<string | null>({ required: true })
const zones = useTimeZones()
const items = computed(() => zones.value.map(value => ({ title: zoneCity(value), subtitle: value, value })))
const named = (text: string) => plain(text).replaceAll('_', ' ')
// What is typed takes the place of what is there.
const selectAll = (event: Event) =>
  setTimeout(() => {
    ;(event.target as HTMLInputElement).select()
  })
const finds = (_title: string, typed: string, item?: { raw: { subtitle: string } }) =>
  named(item?.raw.subtitle ?? '').includes(named(typed))
</script>

<template>
  <v-autocomplete
    v-model="zone"
    :items="items"
    :item-props="true"
    :custom-filter="finds"
    :label="label ?? 'Time zone'"
    :error-messages="errorMessages"
    no-data-text="No such place is known."
    @focus="selectAll"
  />
</template>
