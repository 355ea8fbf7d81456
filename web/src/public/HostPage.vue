<script setup lang="ts">
import { ref } from 'vue'
import { list } from '../time'
import { lengthWords } from '../reading'
import { api, dataOf, type Refusal, type Schemas } from './api'
import { useTitle } from '../composables/useTitle'

/** What a host has listed for everybody. */
const { id, token } = defineProps<{ id: string; token: string }>()
const page = ref<Schemas['HostPage'] | null>(null)
const error = ref<Refusal | null>(null)
useTitle(() => page.value && `A time with ${page.value.name}`, true)
dataOf(api.GET('/host-pages/{id}/{token}', { params: { path: { id, token } } })).then(
  found => (page.value = found),
  refused => (error.value = refused as Refusal),
)
</script>

<template>
  <section v-if="error" class="sheet stack" role="alert">
    <h1>{{ error.status === 404 ? 'This link is not valid' : 'No connection just now' }}</h1>
  </section>
  <p v-else-if="!page" class="soft" role="status">It is being read …</p>
  <section v-else class="sheet stack">
    <h1>A time with {{ page.name }}</h1>
    <ul v-if="page.openHours.length" class="ruled">
      <li v-for="one in page.openHours" :key="one.path">
        <a :href="one.path" class="strong">{{ one.title }}</a>
        <span class="soft small"> · {{ list(one.lengths.map(lengthWords)) }}</span>
        <p v-if="one.words" class="small words">{{ one.words }}</p>
      </li>
    </ul>
    <p v-else class="soft">Nothing can be booked just now.</p>
  </section>
</template>
