<script setup lang="ts">
import { zoneCity } from '../time'

/** In which zone times are shown. */
const { first, all } = defineProps<{ first: string[]; all: string[] }>()
const zone = defineModel<string>({ required: true })
</script>

<template>
  <label class="zone small"
    ><span>Times in</span
    ><select v-model="zone">
      <optgroup label="Near">
        <option v-for="name in first" :key="name" :value="name">{{ zoneCity(name) }} time</option>
      </optgroup>
      <optgroup label="All">
        <option v-for="name in all.filter(one => !first.includes(one))" :key="name" :value="name">{{ name }}</option>
      </optgroup>
    </select></label
  >
</template>

<style scoped>
.zone {
  display: flex;
  gap: 10px;
  align-items: center;
}
.zone span {
  white-space: nowrap;
}
.zone select {
  padding: 7px 10px;
  max-width: 260px;
}
</style>
