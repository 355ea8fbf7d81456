<script setup lang="ts">
import { ref } from 'vue'
import { v7 as newKey } from 'uuid'
import Mark from '../components/Mark.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useSession } from '../composables/useSession'
import ZoneField from '../components/ZoneField.vue'
import { useFaults } from '../composables/useFaults'

const { setUp, setUpError, isSettingUp } = useSession()
const id = newKey()
const name = ref('')
const email = ref('')
const password = ref('')
const code = ref('')
const timeZone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone)
const { at, rest } = useFaults(setUpError, /^\/(code|name|email|password|timeZone)$/)
</script>

<template>
  <form class="sheet gate stack" novalidate @submit.prevent="setUp({ id, name, email, password, timeZone, code })">
    <h1><Mark /> Left Over</h1>
    <p>
      Nobody is here yet. Make the first person: you, who will look after people and places. The others come afterwards.
    </p>
    <v-text-field
      v-model="code"
      label="Code that bin/start has printed"
      autocomplete="one-time-code"
      autofocus
      :error-messages="at('/code')"
    />
    <v-text-field v-model="name" label="Your name" autocomplete="name" :error-messages="at('/name')" />
    <v-text-field
      v-model="email"
      label="Mail address"
      type="email"
      autocomplete="username"
      :error-messages="at('/email')"
    />
    <v-text-field
      v-model="password"
      label="Password, at least 12 characters"
      type="password"
      autocomplete="new-password"
      :error-messages="at('/password')"
    />
    <ZoneField v-model="timeZone" :error-messages="at('/timeZone')" />
    <ProblemNote :error="rest" />
    <v-btn type="submit" :loading="isSettingUp">Begin</v-btn>
  </form>
</template>
