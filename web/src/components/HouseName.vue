<script setup lang="ts">
import Mark from './Mark.vue'
import { house } from '../house'

/** At the head of what people without an account see: whose page it is. */
</script>

<template>
  <p class="house"><Mark /> {{ house }}</p>
</template>

<style scoped>
.house {
  display: flex;
  gap: 8px;
  align-items: center;
  font:
    650 1.1429rem 'Bricolage Grotesque Variable',
    sans-serif;
  margin: 0 0 12px;
}
</style>
