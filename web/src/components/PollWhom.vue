<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Person, Schemas } from '../api/client'
import type { AskForm } from '../asking'
import FormDialog from './FormDialog.vue'
import NamesEntry from './NamesEntry.vue'
import PeoplePicker from './PeoplePicker.vue'

/** Who is asked: those who are new are mailed at once. */
const { poll, people, error, busy } = defineProps<{
  poll: Schemas['TimePoll']
  people: Person[]
  error: Error | null
  busy: boolean
}>()
const emit = defineEmits<{ save: [Schemas['PollPeople']] }>()
const open = defineModel<boolean>({ required: true })
const filled = () => {
  const asked = poll.people.filter(one => one.way !== 'shared')
  return {
    people: asked.filter(one => !one.guest).map(one => ({ personId: one.id, role: one.role })),
    groups: [] as Schemas['AskedGroup'][],
    guests: asked
      .filter(one => one.guest && one.email)
      .map(one => ({ id: one.id, name: one.name, email: one.email!, role: one.role })),
    names: asked
      .filter(one => one.guest && !one.email)
      .map(one => ({ name: one.name, role: one.role })) as AskForm['names'],
  }
}
const form = ref(filled())
watch(open, shown => {
  if (shown) form.value = filled()
})
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`poll-people-${poll.id}`"
    title="Who is asked"
    verb="Save and ask who is new"
    :error="error"
    :busy="busy"
    :width="640"
    @submit="emit('save', form)"
  >
    <PeoplePicker
      v-model="form.people"
      v-model:groups="form.groups"
      v-model:guests="form.guests"
      :people="people"
      :fixed="[]"
    />
    <NamesEntry v-model="form.names" />
  </FormDialog>
</template>
