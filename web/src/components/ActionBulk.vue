<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Action } from '../api/client'
import { useActionMoves } from '../composables/useActions'
import { usePeople } from '../composables/usePeople'
import { count } from '../time'
import DateField from './DateField.vue'
import FormDialog from './FormDialog.vue'

/** Several actions at once: done, another owner, another date. */
const chosen = defineModel<Action[]>({ required: true })
const { moveAll, changeAll } = useActionMoves()
const { people } = usePeople()
const changing = ref<'owner' | 'date' | null>(null)
const form = ref({ ownerId: null as string | null, dueOn: '' })
const open = computed({
  get: () => changing.value !== null,
  set: shown => {
    if (!shown) changing.value = null
  },
})

function ask(what: 'owner' | 'date') {
  form.value = { ownerId: null, dueOn: '' }
  changing.value = what
}
function done() {
  moveAll(chosen.value, 'done')
  chosen.value = []
}
function save() {
  const { ownerId, dueOn } = form.value
  if (changing.value === 'owner') changeAll(chosen.value, () => ({ ownerIds: ownerId ? [ownerId] : [] }))
  else changeAll(chosen.value, () => ({ dueOn: dueOn || null }))
  changing.value = null
  chosen.value = []
}
</script>

<template>
  <div v-if="chosen.length" class="bulk" role="group" aria-label="All chosen">
    <span class="strong">{{ count(chosen.length, 'action') }} chosen</span>
    <button type="button" class="quiet" @click="done">Done</button>
    <button type="button" class="quiet" @click="ask('owner')">Set the owner</button>
    <button type="button" class="quiet" @click="ask('date')">Set the date</button>
    <button type="button" class="quiet" @click="chosen = []">Choose none</button>
  </div>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :title="changing === 'owner' ? 'Set the owner' : 'Set the date'"
    verb="Save"
    @submit="save"
  >
    <p class="soft small">For {{ count(chosen.length, 'action') }}.</p>
    <v-autocomplete
      v-if="changing === 'owner'"
      v-model="form.ownerId"
      :items="(people ?? []).map(person => ({ title: person.name, value: person.id }))"
      label="Owner"
      hint="Empty: nobody"
      persistent-hint
      clearable
      autofocus
    />
    <DateField v-else v-model="form.dueOn" label="Due" />
  </FormDialog>
</template>

<style scoped>
.bulk {
  position: sticky;
  bottom: 0;
  z-index: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: baseline;
  padding: 10px 0;
  border-top: 1px solid var(--line);
  background: var(--sheet);
}
</style>
