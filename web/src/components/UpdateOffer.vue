<script setup lang="ts">
import { useUpdate } from '../composables/useUpdate'

/** Another version of the program is offered, never forced on anybody. */
const { waiting, take, later } = useUpdate()
</script>

<template>
  <p v-if="waiting" class="offer no-print" role="status">
    Left Over has been updated.
    <button type="button" class="quiet" @click="take">Load the new version</button>
    <button type="button" class="quiet" @click="later">Later</button>
  </p>
</template>

<style scoped>
.offer {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  justify-content: center;
  padding: 6px 16px;
  background: var(--gold-pale);
}
</style>
