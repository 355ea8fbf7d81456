<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas } from '../api/client'
import FormDialog from './FormDialog.vue'
import { useFaults } from '../composables/useFaults'

/** Somebody on the call who was not asked comes onto the sheet: by name, and address if minutes are to reach them. */
const { take } = defineProps<{ take: (visit: string, body: Schemas['CallGuest']) => Promise<unknown> }>()
const guest = defineModel<Schemas['CallPerson'] | null>({ required: true })
const open = computed({ get: () => guest.value !== null, set: shown => (guest.value = shown ? guest.value : null) })
const form = ref({ name: '', email: '' })
const fault = ref<Error | null>(null)
watch(guest, now => {
  fault.value = null
  if (now) form.value = { name: now.name ?? '', email: '' }
})
const { at } = useFaults(fault)
async function save() {
  try {
    await take(guest.value!.visit!, { name: form.value.name, email: form.value.email || null })
    guest.value = null
  } catch (error) {
    fault.value = error as Error
  }
}
</script>

<template>
  <FormDialog v-model="open" v-model:form="form" title="Add to the sheet" verb="Add" :error="null" @submit="save">
    <v-text-field v-model="form.name" label="Name" :error-messages="at('/name')" />
    <v-text-field
      v-model="form.email"
      label="Mail address"
      type="email"
      hint="For the minutes; without one they are known by name alone"
      persistent-hint
      :error-messages="at('/email')"
    />
  </FormDialog>
</template>
