<script setup lang="ts">
import { ref } from 'vue'
import { instantOf, wallOf } from '../time'
import MomentField from './MomentField.vue'

/** A time that is moved to another, by typing it. */
const { startsAt, timeZone } = defineProps<{ startsAt: string; timeZone: string }>()
const emit = defineEmits<{ move: [startsAt: string] }>()
const moving = ref(false)
const wall = ref('')
function begin() {
  wall.value = wallOf(startsAt, timeZone)
  moving.value = true
}
function save() {
  if (!wall.value) return
  emit('move', instantOf(wall.value, timeZone))
  moving.value = false
}
</script>

<template>
  <button v-if="!moving" type="button" class="quiet small" @click="begin">Move</button>
  <span v-else class="move" @keydown.enter.prevent="save">
    <MomentField v-model="wall" label="To" />
    <v-btn size="small" variant="outlined" @click="save">Move it</v-btn>
    <v-btn size="small" variant="text" @click="moving = false">Cancel</v-btn>
  </span>
</template>

<style scoped>
.move {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  flex: 1 1 380px;
}
.move > :first-child {
  flex: 1 1 240px;
}
</style>
