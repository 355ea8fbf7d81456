<script setup lang="ts">
import { ref } from 'vue'
import type { AskForm } from '../asking'

/** Names without an address: they stand ready in a list, for who has the shared link to tick, or to be entered. */
const names = defineModel<AskForm['names']>({ required: true })
const typed = ref('')
function add() {
  const wanted = typed.value
    .split(/[,;\n]/)
    .map(name => name.trim())
    .filter(Boolean)
  const fresh = wanted.filter(name => !names.value.some(one => one.name === name))
  typed.value = ''
  // Enter comes right after leaving the field: what was added then is not here yet, and would be written over.
  if (fresh.length) names.value = [...names.value, ...fresh.map(name => ({ name, role: 'required' as const }))]
}
</script>

<template>
  <div class="stack">
    <ul v-if="names.length" class="ruled">
      <li v-for="(one, i) in names" :key="one.name" class="row spread">
        <span
          ><span class="strong">{{ one.name }}</span> <span class="soft small">no address</span></span
        >
        <button type="button" class="quiet" :aria-label="`Remove: ${one.name}`" @click="names.splice(i, 1)">
          Remove
        </button>
      </li>
    </ul>
    <div class="typed">
      <v-text-field
        v-model="typed"
        label="Names without an address"
        placeholder="Gunnar, the pilot"
        @keydown.enter.prevent="add"
        @blur="add"
      />
      <v-btn variant="outlined" :disabled="!typed.trim()" @click="add">Add the names</v-btn>
    </div>
  </div>
</template>

<style scoped>
.typed {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}
</style>
