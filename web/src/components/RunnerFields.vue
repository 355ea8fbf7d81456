<script setup lang="ts">
/** Who keeps a series, and who chairs its meetings. */
defineProps<{ choices: { title: string; value: string }[] }>()
const form = defineModel<{ keeperId: string; chairId: string }>({ required: true })
</script>

<template>
  <div class="runners">
    <v-select v-model="form.keeperId" :items="choices" label="Keeper" />
    <v-select v-model="form.chairId" :items="choices" label="Chair" />
  </div>
</template>

<style scoped>
/* One below the other where a name would be cut. */
.runners {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(200px, 100%), 1fr));
  gap: 12px;
}
</style>
