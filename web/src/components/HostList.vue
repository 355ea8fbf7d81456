<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Person, Schemas } from '../api/client'
import type { OpenHoursForm } from '../openHours'
import WeekHours from './WeekHours.vue'

/** The hosts, in the order of their turns, each with the hours in which they may be booked. */
const { people, at, usual, asked, me, turns } = defineProps<{
  people: Person[]
  at: (pointer: string) => string | undefined
  usual: Record<string, Schemas['WeekHours']>
  /** Those who have not agreed yet. */
  asked: string[]
  me: string
  /** Whether they take turns: only then an order counts. */
  turns: boolean
}>()
const hosts = defineModel<OpenHoursForm['hosts']>({ required: true })
const typed = ref('')
const adding = ref<string | null>(null)
const others = computed(() =>
  people
    .filter(person => !hosts.value.some(host => host.personId === person.id))
    .map(person => ({ title: person.name, value: person.id })),
)
const nameOf = (id: string) => people.find(person => person.id === id)?.name ?? '…'
const OFFICE = ['08:00', '16:00']
const OFFICE_WEEK = { mo: [OFFICE], tu: [OFFICE], we: [OFFICE], th: [OFFICE], fr: [OFFICE], sa: [], su: [] }
function narrow(index: number) {
  const host = hosts.value[index]!
  host.week = host.week ? null : JSON.parse(JSON.stringify(usual[host.personId] ?? OFFICE_WEEK))
}
function add(id: string | null) {
  if (!id) return
  hosts.value.push({ personId: id, week: null })
  setTimeout(() => {
    adding.value = null
    typed.value = ''
  })
}
function up(index: number) {
  const [host] = hosts.value.splice(index, 1)
  hosts.value.splice(index - 1, 0, host!)
}
</script>

<template>
  <div class="stack">
    <div v-for="(host, i) in hosts" :key="host.personId" class="host">
      <p class="row">
        <span class="strong">{{ nameOf(host.personId) }}</span>
        <button type="button" class="quiet" :aria-expanded="host.week !== null" @click="narrow(i)">
          {{ host.week ? 'Take the working hours instead' : 'In hours of their own' }}
        </button>
        <button
          v-if="turns && i > 0"
          type="button"
          class="quiet"
          :aria-label="`Earlier in turn: ${nameOf(host.personId)}`"
          @click="up(i)"
        >
          Earlier in turn
        </button>
        <button
          v-if="hosts.length > 1"
          type="button"
          class="quiet"
          :aria-label="`Remove: ${nameOf(host.personId)}`"
          @click="hosts.splice(i, 1)"
        >
          Remove
        </button>
      </p>
      <p v-if="asked.includes(host.personId)" class="small carried">Asked, and has not agreed yet.</p>
      <p v-if="at(`/hosts/${i}`)" class="small alarm" role="alert">{{ at(`/hosts/${i}`) }}</p>
      <WeekHours v-if="host.week" v-model="host.week" :at="pointer => at(`/hosts/${i}/week/${pointer}`)" />
      <p v-else class="small soft">In their working hours, on their own clock.</p>
    </div>
    <v-autocomplete
      v-model:search="typed"
      :model-value="adding"
      :items="others"
      label="Add a host"
      @update:model-value="add"
    />
    <p v-if="hosts.some(host => host.personId !== me)" class="small soft">
      Colleagues are asked by mail, and are hosts once they agree.
    </p>
    <p v-if="at('/hosts')" class="small alarm" role="alert">{{ at('/hosts') }}</p>
  </div>
</template>

<style scoped>
.host {
  border-bottom: 1px solid var(--line);
  padding-bottom: 10px;
}
</style>
