<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Person, Schemas } from '../api/client'
import { useGroups } from '../composables/usePlaces'

/** Who is in a series and how. */
const { people, fixed } = defineProps<{ people: Person[]; fixed: string[] }>()
const members = defineModel<Schemas['MemberWish'][]>({ required: true })

const ROLES = [{ title: 'must come', value: 'required' }, { title: 'if free', value: 'optional' }, { title: 'for information', value: 'informed' }]
const adding = ref<string | null>(null)
const { groups } = useGroups()
const others = computed(() => [
  ...people.filter(person => !members.value.some(member => member.personId === person.id)).map(person => ({ title: person.name, value: person.id })),
  ...(groups.value ?? []).map(group => ({ title: `Group ${group.name}`, value: `g:${group.id}` })),
])
const nameOf = (id: string) => people.find(person => person.id === id)?.name ?? 'somebody'

function add(personId: string | null) {
  if (!personId) return
  const ids = personId.startsWith('g:') ? groups.value?.find(group => group.id === personId.slice(2))?.allPersonIds ?? [] : [personId]
  for (const id of ids) if (!members.value.some(member => member.personId === id)) members.value.push({ personId: id, role: 'required' })
  setTimeout(() => { adding.value = null })
}
</script>

<template>
  <div class="people">
    <ul v-if="members.length" class="ruled">
      <li v-for="(member, i) in members" :key="member.personId" class="who">
        <span class="strong">{{ nameOf(member.personId) }}</span>
        <v-select v-model="member.role" :items="ROLES" :aria-label="`${nameOf(member.personId)} comes`" class="role" density="compact" variant="plain" />
        <button v-if="!fixed.includes(member.personId)" type="button" class="quiet" :aria-label="`Take off: ${nameOf(member.personId)}`" @click="members.splice(i, 1)">Take off</button>
        <span v-else class="soft small">runs it</span>
      </li>
    </ul>
    <v-autocomplete :model-value="adding" :items="others" label="Add a person or group" no-data-text="Nobody else is here. Add them on the page People." @update:model-value="add" />
  </div>
</template>

<style scoped>
.people { display: grid; gap: 12px; }
.who { display: grid; grid-template-columns: 1fr 150px 70px; gap: 10px; align-items: center; padding: 2px 0 !important; }
.role :deep(.v-field__input) { padding-top: 4px; min-height: 34px; }
</style>
