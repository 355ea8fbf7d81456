<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Schemas } from '../api/client'
import GuestEntry from '../components/GuestEntry.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useGroups } from '../composables/usePlaces'
import { useStartNow } from '../composables/useStartNow'
import { count } from '../time'
import { useFaults } from '../composables/useFaults'
import { plain } from '../plain'

/** A meeting that begins at once: a title, who, and one press. */
const { people, error, start, startError, isStarting } = useStartNow()
const route = useRoute()
const router = useRouter()
const form = ref({
  id: newKey(),
  title: String(route.query.title ?? ''),
  personIds: [route.query.with ?? []].flat().map(String),
  guests: [] as Schemas['SeriesGuest'][],
  call: true,
  place: '',
})
const looked = ref('')
const STATES: Record<Schemas['FreeNow']['people'][number]['state'], string> = {
  free: 'free now',
  tentative: 'perhaps busy',
  unknown: 'no calendar known',
  outside: 'not at work now',
  busy: 'busy now',
}
const shown = computed(() =>
  (people.value?.people ?? []).filter(
    person => form.value.personIds.includes(person.id) || plain(person.name).includes(plain(looked.value)),
  ),
)
/** All of a group at once: those who are not asked yet. */
const { groups } = useGroups()
const groupChoices = computed(() => (groups.value ?? []).map(one => ({ title: `All of ${one.name}`, value: one.id })))
const group = ref<string | null>(null)
function askGroup(id: string | null) {
  const ids = groups.value?.find(one => one.id === id)?.allPersonIds ?? []
  const here = new Set((people.value?.people ?? []).map(one => one.id))
  form.value.personIds = [...new Set([...form.value.personIds, ...ids.filter(one => here.has(one))])]
  setTimeout(() => (group.value = null))
}
const { at: fault, rest: elsewhere } = useFaults(startError, /^\/(title|guests|place)$/)
const tried = ref(false)
const titleFault = computed(() => (tried.value && !form.value.title.trim() ? 'Give it a title.' : fault('/title')))
const placeFault = computed(() =>
  tried.value && !form.value.call && !form.value.place.trim() ? 'Say where: a place, or with a call.' : fault('/place'),
)
const asked = computed(() => form.value.personIds.length + form.value.guests.length)

async function save() {
  tried.value = true
  if (titleFault.value || placeFault.value) return
  try {
    const { meetingId } = await start({ ...form.value, place: form.value.place || null })
    router.push(`/meetings/${meetingId}`)
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <div class="desk">
    <h1>Start one now</h1>
    <ProblemNote :error="error" />
    <form class="sheet stack now" novalidate @submit.prevent="save">
      <v-text-field v-model="form.title" label="Title" autofocus :error-messages="titleFault" />
      <fieldset>
        <legend class="eyebrow">Who, those free right now first</legend>
        <v-text-field v-model="looked" label="Look for a name" density="compact" />
        <v-autocomplete
          v-if="groupChoices.length"
          :model-value="group"
          :items="groupChoices"
          label="All of a group"
          density="compact"
          class="group"
          @update:model-value="askGroup"
        />
        <ul class="who">
          <li v-for="person in shown" :key="person.id">
            <label
              ><input v-model="form.personIds" type="checkbox" :value="person.id" /> {{ person.name }}
              <span class="small" :class="person.state === 'free' ? 'fresh strong' : 'soft'"
                >{{ STATES[person.state] }}, {{ person.clock }} there</span
              ></label
            >
          </li>
        </ul>
      </fieldset>
      <GuestEntry @add="guest => form.guests.push(guest)" />
      <p v-if="fault('/guests')" class="alarm small" role="alert">{{ fault('/guests') }}</p>
      <p v-for="(one, i) in form.guests" :key="one.id">
        {{ one.name }} <span class="soft">{{ one.email }}</span>
        <button type="button" class="quiet small" :aria-label="`Remove: ${one.name}`" @click="form.guests.splice(i, 1)">
          Remove
        </button>
      </p>
      <v-checkbox v-model="form.call" label="With a call" />
      <v-text-field
        v-model="form.place"
        :label="form.call ? 'Place (optional)' : 'Place'"
        :error-messages="placeFault"
        maxlength="250"
      />
      <ProblemNote :error="elsewhere" />
      <div class="row">
        <v-btn type="submit" size="large" :loading="isStarting">Start now</v-btn>
        <p class="soft small">
          {{
            asked
              ? `${count(asked, 'person')} told at once: by mail, and by text message who has a number.`
              : 'Nobody is told.'
          }}
        </p>
      </div>
    </form>
  </div>
</template>

<style scoped>
.now {
  max-width: 620px;
  margin-top: 16px;
}
fieldset {
  border: 0;
  padding: 0;
  margin-inline: 0;
}
.group {
  margin-top: 8px;
}
.who {
  max-height: 260px;
  overflow: auto;
  margin: 0;
  padding: 0;
  list-style: none;
}
.who label {
  display: block;
  padding: 4px 0;
}
</style>
