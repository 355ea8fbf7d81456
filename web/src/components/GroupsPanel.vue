<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import { type Person, type Schemas } from '../api/client'
import { useNotice } from '../composables/useNotice'
import { useGroups } from '../composables/usePlaces'
import { count, list } from '../time'
import FormDialog from './FormDialog.vue'
import { useFaults } from '../composables/useFaults'

/** Groups of people; a group may hold groups. */
const { people, mayKeep, adding } = defineProps<{ people: Person[]; mayKeep: boolean; adding?: boolean }>()
const { groups, save, saveError, isSaving, resetSave, remove } = useGroups()
const { say } = useNotice()
const open = ref(false)
const editing = ref<Schemas['Group'] | null>(null)
const form = ref({ id: '', name: '', personIds: [] as string[], groupIds: [] as string[] })
const { at, rest } = useFaults(saveError, /^\/(name|groupIds)$/)
const peopleChoices = computed(() => people.map(person => ({ title: person.name, value: person.id })))
const groupChoices = computed(() =>
  (groups.value ?? [])
    .filter(group => group.id !== form.value.id)
    .map(group => ({ title: group.name, value: group.id })),
)

function edit(group: Schemas['Group'] | null) {
  resetSave()
  editing.value = group
  form.value = {
    id: group?.id ?? newKey(),
    name: group?.name ?? '',
    personIds: group?.people.map(one => one.id) ?? [],
    groupIds: group?.groups.map(one => one.id) ?? [],
  }
  open.value = true
}
if (adding && mayKeep) edit(null)
async function keep() {
  try {
    await save({ ...form.value, ...(editing.value ? { version: editing.value.version } : {}) })
    open.value = false
  } catch {
    /* shown at the field */
  }
}
async function drop(group: Schemas['Group']) {
  await remove(group.id)
  say(`The group ${group.name} is gone; its people stay.`, () =>
    save({
      id: newKey(),
      name: group.name,
      personIds: group.people.map(one => one.id),
      groupIds: group.groups.map(one => one.id),
    }),
  )
}
</script>

<template>
  <div class="row spread">
    <p class="eyebrow">{{ count(groups?.length ?? 0, 'group') }}</p>
    <v-btn v-if="mayKeep" size="small" @click="edit(null)">Add a group</v-btn>
  </div>
  <p v-if="groups?.length === 0" class="soft">No group yet. A group can be asked to a meeting as a whole.</p>
  <ul class="ruled">
    <li v-for="group in groups" :key="group.id">
      <div class="row spread">
        <b>{{ group.name }}</b><span v-if="mayKeep" class="row"
          ><button class="quiet" :aria-label="`Edit ${group.name}`" @click="edit(group)">Edit</button
          ><button class="quiet" :aria-label="`Remove ${group.name}`" @click="drop(group)">Remove</button></span
        >
      </div>
      <p class="small soft">
        {{
          list([...group.groups.map(one => `all of ${one.name}`), ...group.people.map(one => one.name)]) ||
          'nobody yet'
        }}<template v-if="group.groups.length"> · {{ count(group.allPersonIds.length, 'person') }} in all</template>
      </p>
    </li>
  </ul>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`group-${editing?.id ?? 'new'}`"
    :title="editing ? editing.name : 'Add a group'"
    :verb="editing ? 'Save' : 'Add'"
    :error="rest"
    :busy="isSaving"
    @submit="keep"
  >
    <v-text-field v-model="form.name" label="Name" autofocus :error-messages="at('/name')" />
    <v-autocomplete v-model="form.personIds" :items="peopleChoices" label="People" multiple chips closable-chips />
    <v-autocomplete
      v-model="form.groupIds"
      :items="groupChoices"
      label="Groups in it"
      multiple
      chips
      closable-chips
      :error-messages="at('/groupIds')"
    />
  </FormDialog>
</template>
