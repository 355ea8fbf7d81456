<script setup lang="ts">
import { computed } from 'vue'
import { useNotice } from '../composables/useNotice'

const { notice, leave, undo } = useNotice()
const open = computed({
  get: () => notice.value !== null,
  set: shown => {
    if (!shown) leave()
  },
})
</script>

<template>
  <v-snackbar
    :key="notice?.text"
    v-model="open"
    :timeout="notice?.trouble ? 12000 : 7000"
    :color="notice?.trouble ? 'error' : 'ink'"
    location="bottom left"
  >
    <span :role="notice?.trouble ? 'alert' : 'status'">{{ notice?.text }}</span>
    <template #actions>
      <v-btn v-if="notice?.undo" variant="text" color="gold" @click="undo">Undo</v-btn>
      <v-btn v-if="notice?.go" variant="text" color="gold" :to="notice.go.to" @click="leave">{{
        notice.go.label
      }}</v-btn>
      <v-btn variant="text" color="gold" @click="leave">Close</v-btn>
    </template>
  </v-snackbar>
</template>
