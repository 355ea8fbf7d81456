<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Person, Schemas } from '../api/client'
import type { Look } from '../commonTime'
import { zoneCity } from '../time'

/** Who is wanted, and how: people, groups, and guests without a calendar here. */
const { people, groups, looked } = defineProps<{
  people: Person[]
  groups: Schemas['Group'][]
  looked: Schemas['LookedFor'][]
}>()
const look = defineModel<Look>({ required: true })

const ROLES = [
  { title: 'must come', value: 'required' },
  { title: 'if free', value: 'optional' },
]
const adding = ref<string | null>(null)
const typed = ref('')
const guest = ref('')
const choices = computed(() => [
  ...groups
    .filter(group => !look.value.groups.some(one => one.groupId === group.id))
    .map(group => ({ title: group.name, subtitle: `group of ${group.allPersonIds.length}`, value: `g:${group.id}` })),
  ...people
    .filter(person => !look.value.people.some(one => one.personId === person.id))
    .map(person => ({ title: person.name, subtitle: zoneCity(person.timeZone), value: `p:${person.id}` })),
])
const rows = computed(() => [
  ...look.value.groups.map((one, i) => ({
    key: one.groupId,
    name: groups.find(group => group.id === one.groupId)?.name ?? 'a group',
    about: `group of ${groups.find(group => group.id === one.groupId)?.allPersonIds.length ?? 0}`,
    unknown: false,
    of: one,
    drop: () => look.value.groups.splice(i, 1),
  })),
  ...look.value.people.map((one, i) => ({
    key: one.personId,
    name: people.find(person => person.id === one.personId)?.name ?? guestName(one.personId),
    about: about(one.personId),
    unknown: unknown(one.personId),
    of: one,
    drop: () => look.value.people.splice(i, 1),
  })),
  ...look.value.guests.map((one, i) => ({
    key: one.id,
    name: one.name,
    about: 'guest',
    unknown: true,
    of: one,
    drop: () => look.value.guests.splice(i, 1),
  })),
])
const guestName = (id: string) => looked.find(one => one.id === id)?.name ?? 'a guest'
const unknown = (id: string) => looked.find(one => one.id === id)?.known === false
function about(id: string) {
  const found = looked.find(one => one.id === id)
  if (!found) return zoneCity(people.find(person => person.id === id)?.timeZone ?? '')
  const hours = found.aheadMin / 60
  return `${found.zoneCity}${hours ? ` · ${hours > 0 ? '+' : '−'}${Math.abs(hours)} h` : ''}`
}

function add(value: string | null) {
  if (!value) return
  const id = value.slice(2)
  if (value.startsWith('g:')) look.value.groups.push({ groupId: id, role: 'required' })
  else look.value.people.push({ personId: id, role: 'required' })
  // The name that was typed goes too, or the next one would be glued to it.
  setTimeout(() => {
    adding.value = null
    typed.value = ''
  })
}
function addGuest() {
  if (guest.value.trim()) look.value.guests.push({ id: newKey(), name: guest.value.trim(), role: 'required' })
  guest.value = ''
}
</script>

<template>
  <div class="who">
    <h2 class="eyebrow">Who</h2>
    <ul v-if="rows.length" class="ruled">
      <li v-for="row in rows" :key="row.key" class="line">
        <div>
          <span class="strong">{{ row.name }}</span><br /><span class="small soft">{{ row.about }}</span
          ><template v-if="row.unknown"><br /><span class="small strong alarm">no calendar known</span></template>
        </div>
        <div class="right">
          <v-select
            v-model="row.of.role"
            :items="ROLES"
            :aria-label="`${row.name} comes`"
            variant="plain"
            density="compact"
            menu-icon=""
            class="role"
          />
          <button type="button" class="quiet small" :aria-label="`Remove: ${row.name}`" @click="row.drop()">
            Remove
          </button>
        </div>
      </li>
    </ul>
    <p v-else class="soft">Choose who must come.</p>
    <v-autocomplete
      v-model:search="typed"
      :model-value="adding"
      :items="choices"
      :item-props="true"
      label="Add a person or group"
      no-data-text="Nobody else is here."
      @update:model-value="add"
    />
    <form class="guest" novalidate @submit.prevent="addGuest">
      <v-text-field v-model="guest" label="Add a guest by name" @blur="addGuest" />
    </form>
  </div>
</template>

<style scoped>
.who {
  display: grid;
  gap: 10px;
  align-content: start;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 6px 0;
}
.right {
  text-align: right;
  flex: 0 0 82px;
}
.role :deep(.v-field__input) {
  padding: 0;
  min-height: 24px;
  font-size: 0.9286rem;
  justify-content: flex-end;
  color: var(--pine);
  font-weight: 600;
}
.role :deep(.v-field__append-inner) {
  padding-top: 0;
}
</style>
