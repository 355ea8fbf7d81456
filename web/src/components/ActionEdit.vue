<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Action } from '../api/client'
import { useActionMoves } from '../composables/useActions'
import { useSeries } from '../composables/useSeries'
import FormDialog from './FormDialog.vue'

/** What is to be done, by whom and by when; or dropped, with a reason. */
const action = defineModel<Action | null>({ required: true })

const { move, change } = useActionMoves()
const seriesId = computed(() => action.value?.seriesId ?? '')
const { series } = useSeries(seriesId)
const open = computed({ get: () => action.value !== null, set: shown => { if (!shown) action.value = null } })
const form = ref({ text: '', ownerIds: [] as string[], dueOn: '', reason: '' })
const error = ref<Error | null>(null)
watch(action, shown => {
  error.value = null
  if (shown) form.value = { text: shown.text, ownerIds: shown.owners.map(owner => owner.id), dueOn: shown.dueOn ?? '', reason: '' }
})

async function save() {
  const { text, ownerIds, dueOn } = form.value
  try {
    await change({ action: action.value!, text, ownerIds, dueOn: dueOn || null })
    open.value = false
  } catch (problem) {
    error.value = problem as Error
  }
}

function drop() {
  move({ action: action.value!, state: 'dropped', reason: form.value.reason })
  open.value = false
}
</script>

<template>
  <FormDialog v-model="open" title="Change the action" verb="Keep" :error="error" :disabled="!form.text.trim()" @submit="save">
    <v-textarea v-model="form.text" label="What is to be done" maxlength="5000" autofocus />
    <v-autocomplete v-model="form.ownerIds" :items="(series?.members ?? []).map(member => ({ title: member.name, value: member.personId }))" label="Owners" multiple chips />
    <v-text-field v-model="form.dueOn" type="date" label="Due" />
    <div class="drop">
      <v-text-field v-model="form.reason" label="Or drop it, because" maxlength="500" />
      <v-btn variant="outlined" :disabled="!form.reason.trim()" @click="drop">Drop it</v-btn>
    </div>
  </FormDialog>
</template>

<style scoped>
.drop { display: flex; gap: 10px; align-items: flex-start; border-top: 1px solid var(--line); padding-top: 14px; }
</style>
