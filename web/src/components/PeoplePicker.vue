<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Person, Schemas } from '../api/client'
import { useGroups } from '../composables/usePlaces'
import GuestEntry from './GuestEntry.vue'

/** Who is in a series and how: people, groups as a whole, and guests by address. */
const { people, fixed } = defineProps<{ people: Person[]; fixed: string[] }>()
const members = defineModel<Schemas['MemberWish'][]>({ required: true })
const chosenGroups = defineModel<Schemas['AskedGroup'][]>('groups', { default: () => [] })
const guests = defineModel<Schemas['SeriesGuest'][]>('guests', { default: () => [] })

const ROLES = [
  { title: 'must come', value: 'required' },
  { title: 'if free', value: 'optional' },
  { title: 'for information', value: 'informed' },
]
const adding = ref<string | null>(null)
const typed = ref('')
const { groups: allGroups } = useGroups()
const others = computed(() => [
  ...people
    .filter(person => !members.value.some(member => member.personId === person.id))
    .map(person => ({ title: person.name, value: person.id })),
  ...(allGroups.value ?? [])
    .filter(group => !chosenGroups.value.some(one => one.groupId === group.id))
    .map(group => ({ title: `Group ${group.name}`, value: `g:${group.id}` })),
])
const nameOf = (id: string) => people.find(person => person.id === id)?.name ?? '…'
const groupWords = (id: string) => {
  const group = allGroups.value?.find(one => one.id === id)
  const inIt = `${group?.allPersonIds.length ?? 0} in it; removing it removes who is in only through it`
  return `Group ${group?.name ?? 'a group'} (${inIt})`
}
const rows = computed(() => [
  ...chosenGroups.value.map((one, i) => ({
    key: one.groupId,
    name: groupWords(one.groupId),
    of: one as { role: string },
    fixed: false,
    drop: () => {
      chosenGroups.value = chosenGroups.value.filter((_, j) => j !== i)
    },
  })),
  ...members.value.map((one, i) => ({
    key: one.personId,
    name: nameOf(one.personId),
    of: one as { role: string },
    fixed: fixed.includes(one.personId),
    drop: () => {
      members.value.splice(i, 1)
    },
  })),
  ...guests.value.map((one, i) => ({
    key: one.id,
    name: `${one.name}, guest`,
    of: one as { role: string },
    fixed: false,
    drop: () => {
      guests.value = guests.value.filter((_, j) => j !== i)
    },
  })),
])

function add(value: string | null) {
  if (!value) return
  if (value.startsWith('g:'))
    chosenGroups.value = [...chosenGroups.value, { groupId: value.slice(2), role: 'required' }]
  else members.value.push({ personId: value, role: 'required' })
  // The name that was typed goes too, or the next one would be glued to it.
  setTimeout(() => {
    adding.value = null
    typed.value = ''
  })
}
const addGuest = (guest: Schemas['SeriesGuest']) => (guests.value = [...guests.value, guest])
</script>

<template>
  <div class="people">
    <ul v-if="rows.length" class="ruled">
      <li v-for="row in rows" :key="row.key" class="who">
        <span class="strong">{{ row.name }}</span>
        <v-select
          v-model="row.of.role"
          :items="ROLES"
          :aria-label="`${row.name} comes`"
          class="role"
          density="compact"
          variant="plain"
        />
        <button v-if="!row.fixed" type="button" class="quiet" :aria-label="`Remove: ${row.name}`" @click="row.drop()">
          Remove
        </button>
        <span v-else class="soft small">runs it</span>
      </li>
    </ul>
    <v-autocomplete
      v-model:search="typed"
      :model-value="adding"
      :items="others"
      label="Add a person or group"
      no-data-text="Nobody else is here. Add them on the page People & places."
      @update:model-value="add"
    />
    <GuestEntry @add="addGuest" />
  </div>
</template>

<style scoped>
.people {
  display: grid;
  gap: 12px;
}
.who {
  display: grid;
  grid-template-columns: 1fr 150px 70px;
  gap: 10px;
  align-items: center;
  padding: 2px 0;
}
.role :deep(.v-field__input) {
  padding-top: 4px;
  min-height: 34px;
}
@media (max-width: 560px) {
  .who {
    grid-template-columns: 1fr auto;
    gap: 0 10px;
  }
  .who > .strong {
    grid-column: 1 / -1;
    padding-top: 6px;
  }
}
</style>
