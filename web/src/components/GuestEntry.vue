<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'

/** A guest by name and address. Leaving the address adds them, so that one who was typed is not missing unnoticed. */
const emit = defineEmits<{ add: [Schemas['SeriesGuest']] }>()
const guest = ref({ name: '', email: '' })
const half = computed(() =>
  guest.value.name.trim() && !guest.value.email.includes('@')
    ? "Give the guest's mail address, or empty the name."
    : undefined,
)
function add() {
  const { name, email } = guest.value
  if (!email.includes('@')) return
  emit('add', { id: newKey(), name: name.trim() || email.split('@')[0]!, email: email.trim(), role: 'required' })
  guest.value = { name: '', email: '' }
}
</script>

<template>
  <div class="guest" @keydown.enter.prevent="add">
    <v-text-field v-model="guest.name" label="Guest's name" />
    <v-text-field v-model="guest.email" label="Guest's mail address" type="email" :error-messages="half" @blur="add" />
    <v-btn variant="outlined" :disabled="!guest.email.includes('@')" @click="add">Add the guest</v-btn>
  </div>
</template>

<style scoped>
.guest {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.guest > .v-input {
  flex: 1 1 180px;
}
</style>
