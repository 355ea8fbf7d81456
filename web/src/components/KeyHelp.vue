<script setup lang="ts">
import { computed } from 'vue'
import { activeKeys } from '../composables/useKeys'

const open = defineModel<boolean>({ required: true })
const keys = computed(() => (open.value ? [...activeKeys.filter(key => key.when?.() ?? true), ...ALWAYS] : []))
const ALWAYS = [
  { key: 'Enter', label: 'Save what is typed' },
  { key: 'Esc', label: 'Cancel; a line being typed: just a note' },
  { key: 'Tab', label: 'Move on' },
  { key: '↑ ↓', label: 'In a date, time or length: the next, the one before' },
]
</script>

<template>
  <v-dialog v-model="open" max-width="420" aria-labelledby="keys-title">
    <v-card class="card">
      <h2 id="keys-title">Keys on this page</h2>
      <dl>
        <template v-for="key in keys" :key="key.key"
          ><dt>
            <kbd>{{ key.key }}</kbd>
          </dt>
          <dd>{{ key.label }}</dd></template
        >
      </dl>
      <v-btn @click="open = false">Close</v-btn>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 22px 26px;
}
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 8px;
  margin: 14px 0 18px;
}
dd {
  margin: 0;
}
</style>
