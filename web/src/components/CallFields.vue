<script setup lang="ts">
import { computed } from 'vue'
import { type Schemas } from '../api/client'
import type { CallForm } from '../calls'
import { useFaults } from '../composables/useFaults'

/** The online side of a meeting: none, a link of one's own, or a call made here. */
const {
  error,
  single = false,
  here = null,
} = defineProps<{
  error: Error | null
  /** Of one meeting alone, which has no run to stand for. */
  single?: boolean
  here?: Schemas['CallHere'] | null
}>()
const call = defineModel<CallForm>({ required: true })
const faults = useFaults(() => error)
const at = (name: string) => faults.at(`/call/${name}`)
// Without a call service links are typed by hand; the form of a new series does not know, and is told at the field.
const KINDS = computed(() => [
  { title: 'No call', value: 'none' },
  { title: 'A link of your own', value: 'own' },
  ...(here?.available === false ? [] : madeHere()),
])
const madeHere = () => [
  ...(single ? [] : [{ title: 'Made here, standing: one link for the whole run', value: 'standing' }]),
  { title: single ? 'Made here' : 'Made here, fresh: a link for each meeting', value: 'fresh' },
]
const ours = computed(() => ['standing', 'fresh'].includes(call.value.kind))
const hint = computed(() =>
  here && ours.value ? `Proposed is ${here.proposed}: ${here.why}.` : 'A fresh link is better where guests are asked.',
)
</script>

<template>
  <div class="call">
    <v-select v-model="call.kind" :items="KINDS" label="Call" :error-messages="at('kind')" />
    <template v-if="call.kind === 'own'">
      <v-text-field
        v-model="call.url"
        label="Link of the call"
        type="url"
        placeholder="https://"
        :error-messages="at('url')"
      />
      <v-text-field v-model="call.passcode" label="Passcode" :error-messages="at('passcode')" />
      <v-text-field v-model="call.dialIn" label="Or dial" type="tel" :error-messages="at('dialIn')" />
    </template>
    <v-checkbox v-if="ours && !single" v-model="call.dial" label="With a number to dial" />
  </div>
  <p v-if="ours && !single" class="soft small">{{ hint }}</p>
</template>

<style scoped>
.call {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.call > * {
  flex: 1 1 120px;
}
.call > :first-child {
  flex: 3 1 240px;
}
</style>
