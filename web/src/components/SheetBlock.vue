<script setup lang="ts">
/** A numbered part of the sheet: left over, or a topic. */
defineProps<{ here: boolean }>()
</script>

<template>
  <section class="block" :class="{ here }">
    <span class="nr"><slot name="number" /></span>
    <div class="body"><slot /></div>
  </section>
</template>

<style scoped>
.block {
  display: grid;
  grid-template-columns: 44px 1fr;
  padding: 10px 34px 8px 0;
  border-left: 4px solid transparent;
}
.block.here {
  background: color-mix(in srgb, var(--pine-pale) 45%, transparent);
  border-left-color: var(--pine);
}
.nr {
  display: flex;
  justify-content: flex-end;
  gap: 4px;
  align-items: flex-start;
  font-weight: 650;
  color: var(--soft);
  padding-top: 2px;
}
.body {
  padding-left: 18px;
  min-width: 0;
}
.body :deep(h2) {
  font-size: 1.2143rem;
}
.body :deep(.title) {
  all: unset;
  cursor: pointer;
}
.body :deep(.title:hover) {
  text-decoration: underline;
}
.body :deep(.title:focus-visible) {
  outline: 2px solid var(--alarm);
}
@media (max-width: 860px) {
  .block {
    grid-template-columns: 26px 1fr;
    padding-right: 12px;
  }
  .body {
    padding-left: 8px;
  }
  .nr {
    flex-direction: column-reverse;
  }
}
</style>
