<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useTimeCheck } from '../composables/useCommonTime'
import { clock, list, mediumDay } from '../time'

/** Who of those who must come is taken at a time that is about to be taken, and the nearest at which nobody is. */
const {
  people,
  at,
  lengthMin,
  timeZone,
  enabled,
  exceptMeetingId = null,
} = defineProps<{
  people: Schemas['Asked'][]
  at: string
  lengthMin: number
  timeZone: string
  enabled: boolean
  exceptMeetingId?: string | null
}>()
const { fit } = useTimeCheck(() =>
  enabled && people.some(one => one.role === 'required')
    ? {
        people: people.filter(one => one.role !== 'informed'),
        at,
        lengthMin,
        timeZone,
        ...(exceptMeetingId ? { exceptMeetingId } : {}),
      }
    : null,
)
const out = computed(() =>
  (fit.value?.people ?? []).filter(one => one.role === 'required' && ['busy', 'outside'].includes(one.state)),
)
const words = computed(() =>
  [
    ['busy', 'busy then'],
    ['outside', 'outside their hours'],
  ]
    .map(([state, said]) => ({ said, names: out.value.filter(one => one.state === state).map(one => one.name) }))
    .filter(one => one.names.length)
    .map(one => `${list(one.names)} ${one.names.length === 1 ? 'is' : 'are'} ${one.said}`)
    .join('; '),
)
</script>

<template>
  <p v-if="out.length" class="small alarm" role="status">
    {{ words }}.
    <span v-if="fit?.nearest" class="soft"
      >The nearest at which all who must come are free: {{ mediumDay(fit.nearest.localStart) }},
      {{ clock(fit.nearest.localStart) }}.</span
    >
  </p>
</template>
