<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Action } from '../api/client'
import { useActionMoves } from '../composables/useActions'
import { useSeries } from '../composables/useSeries'
import FormDialog from './FormDialog.vue'
import DateField from './DateField.vue'

/** What is to be done, by whom and by when; or dropped, with a reason. */
const action = defineModel<Action | null>({ required: true })

const { move, change } = useActionMoves()
const seriesId = computed(() => action.value?.seriesId ?? '')
const { series } = useSeries(seriesId)
const open = computed({
  get: () => action.value !== null,
  set: shown => {
    if (!shown) action.value = null
  },
})
const form = ref({ text: '', ownerIds: [] as string[], dueOn: '', reason: '' })
const error = ref<Error | null>(null)
// The last one shown, while the dialog closes.
const shown = ref(action.value)
watch(
  action,
  now => {
    error.value = null
    if (now) shown.value = now
    if (now)
      form.value = { text: now.text, ownerIds: now.owners.map(owner => owner.id), dueOn: now.dueOn ?? '', reason: '' }
  },
  { immediate: true },
)

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
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`action-${shown?.id}`"
    title="Edit the action"
    verb="Save"
    :error="error"
    :disabled="!form.text.trim()"
    @submit="save"
  >
    <v-textarea v-model="form.text" label="What is to be done" autofocus />
    <v-autocomplete
      v-model="form.ownerIds"
      :items="(series?.members ?? []).map(member => ({ title: member.name, value: member.personId }))"
      label="Owners"
      multiple
      chips
    />
    <DateField v-model="form.dueOn" label="Due" />
    <div class="drop">
      <v-text-field v-model="form.reason" label="Or drop it, because" />
      <v-btn variant="outlined" :disabled="!form.reason.trim()" @click="drop">Drop it</v-btn>
    </div>
  </FormDialog>
</template>

<style scoped>
.drop {
  display: flex;
  gap: 10px;
  align-items: flex-start;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
</style>
