<script setup lang="ts">
import { count } from '../time'
import { computed, ref } from 'vue'
import { api, dataOf, type Refusal, type Schemas } from './api'
import { useZone } from './useZone'
import NotYou from '../components/NotYou.vue'
import ZoneSwitch from './ZoneSwitch.vue'
import { useTitle } from '../composables/useTitle'

/** One of a row of times within a meeting, picked by whoever is on the list. */
const { id, personId, token } = defineProps<{ id: string; personId: string; token: string }>()
const path = { params: { path: { id, personId, token } } }
const page = ref<Schemas['PickPage'] | null>(null)
const error = ref<Refusal | null>(null)
const fault = ref<Refusal | null>(null)
useTitle(() => page.value?.title, true)
const busy = ref(false)
const said = ref('')
const near = computed(() => (page.value ? [page.value.timeZone, page.value.hostZone] : []))
const { zone, first, all, place, moment, day, time } = useZone(near)

async function read() {
  error.value = null
  try {
    page.value = await dataOf(api.GET('/pick-links/{id}/{personId}/{token}', path))
  } catch (refused) {
    error.value = refused as Refusal
  }
}
async function pick(startsAt: string) {
  busy.value = true
  fault.value = null
  said.value = ''
  try {
    page.value = await dataOf(api.PUT('/pick-links/{id}/{personId}/{token}', { ...path, body: { startsAt } }))
    said.value = `${moment(startsAt)} is yours. The invitation is on its way.`
  } catch (refused) {
    fault.value = refused as Refusal
    if (fault.value.code === 'taken') await read()
  } finally {
    busy.value = false
  }
}
read()
</script>

<template>
  <section v-if="error?.status === 404" class="sheet stack" role="alert">
    <h1>This link is no longer valid</h1>
    <p>Perhaps the meeting is over, you have a newer link, or part of this one was lost. Ask whoever sent it to you.</p>
  </section>
  <section v-else-if="error && !page" class="sheet stack" role="alert">
    <h1>No connection just now</h1>
    <button type="button" class="button" @click="read()">Try again</button>
  </section>
  <p v-else-if="!page" class="soft" role="status">The times are being read …</p>
  <section v-else class="sheet stack">
    <header class="about">
      <p class="eyebrow">{{ page.keeper }} asks you, {{ page.name }}</p>
      <h1>{{ page.title }}</h1>
      <p class="soft">{{ [count(page.lengthMin, 'minute'), page.location].filter(Boolean).join(' · ') }}</p>
    </header>
    <ZoneSwitch v-model="zone" :first="first" :all="all" />
    <p v-if="said" class="done" role="status">{{ said }}</p>
    <p v-else-if="page.own" class="done">Your time is {{ moment(page.own) }} {{ place }} time.</p>
    <p v-if="page.callPath"><a :href="page.callPath">The way into the call</a></p>
    <p v-if="!page.open" class="soft">Times can no longer be picked here.</p>
    <template v-else>
      <p v-if="fault" class="alarm" role="alert">{{ fault.message }}</p>
      <h2 v-if="page.times.length">{{ day(page.times[0]!.startsAt) }}</h2>
      <ul class="times" aria-label="Times to pick from">
        <li v-for="one in page.times" :key="one.startsAt">
          <button
            type="button"
            :class="{ on: one.startsAt === page.own }"
            :aria-pressed="one.startsAt === page.own"
            :disabled="!one.free || busy"
            @click="pick(one.startsAt)"
          >
            {{ time(one.startsAt) }}<span v-if="!one.free" class="visually-hidden">, taken</span>
          </button>
        </li>
      </ul>
      <p v-if="!page.own && page.times.every(one => !one.free)" class="strong">
        All times are taken by now. Answer the mail you got: it reaches {{ page.keeper }}, who can make more of them.
      </p>
      <p v-else class="small soft">
        {{ page.own ? 'Press another one to change it.' : 'Press the one that suits you; it is yours at once.' }}
      </p>
    </template>
    <NotYou :name="page.name" :from="page.keeper" />
  </section>
</template>

<style scoped>
.times button:disabled {
  border-style: dashed;
  color: var(--soft);
  text-decoration: line-through;
  cursor: default;
}
</style>
