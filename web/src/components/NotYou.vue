<script setup lang="ts">
/** Whose page a private link opens, and what to do for whom it was passed on to. */
defineProps<{ name: string; from: string }>()
</script>

<template>
  <details class="small soft">
    <summary>This page is for {{ name }}. Not you?</summary>
    <p>
      The link was passed on to you. What is pressed here counts for {{ name }}. Ask {{ from }} to invite you with your
      own address; then you get a link of your own.
    </p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
}
</style>
