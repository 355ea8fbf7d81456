<script setup lang="ts">
import { computed } from 'vue'
import { ProblemError, type Schemas } from '../api/client'

/** The online side of a meeting. */
export interface CallForm {
  url: string
  passcode: string
  dialIn: string
}
const { error } = defineProps<{ error: Error | null }>()
const call = defineModel<CallForm>({ required: true })
const at = (name: string) => (error instanceof ProblemError ? error.at(`/call/${name}`) : undefined)
const hasCall = computed(() => !!(call.value.url || call.value.dialIn))
</script>

<script lang="ts">
/** What the server takes; null when there is no online side. */
export const callOf = (form: { url: string; passcode: string; dialIn: string }): Schemas['Call'] | null =>
  form.url || form.dialIn || form.passcode
    ? { url: form.url || null, passcode: form.passcode || null, dialIn: form.dialIn || null }
    : null
export const callForm = (call: Schemas['Call'] | null | undefined) => ({
  url: call?.url ?? '',
  passcode: call?.passcode ?? '',
  dialIn: call?.dialIn ?? '',
})
</script>

<template>
  <div class="call">
    <v-text-field
      v-model="call.url"
      label="Link of the call"
      type="url"
      placeholder="https://"
      :error-messages="at('url')"
    />
    <v-text-field
      v-if="hasCall || call.passcode"
      v-model="call.passcode"
      label="Passcode"
      :error-messages="at('passcode')"
    />
    <v-text-field v-model="call.dialIn" label="Or dial" type="tel" :error-messages="at('dialIn')" />
  </div>
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
