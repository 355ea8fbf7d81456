<script setup lang="ts">
import { ref } from 'vue'
import Mark from '../components/Mark.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useSession } from '../composables/useSession'
import { usePasswordLink } from '../composables/useSignIns'
import { useFaults } from '../composables/useFaults'

const { signIn, signInError, isSigningIn } = useSession()
const { ask, askError, isAsking, asked } = usePasswordLink()
const email = ref('')
const password = ref('')
const forgotten = ref(false)
const { at, rest } = useFaults(signInError, /^\/password$/)
</script>

<template>
  <form v-if="!forgotten" class="sheet gate stack" novalidate @submit.prevent="signIn({ email, password })">
    <h1><Mark /> Left Over</h1>
    <p class="soft">Common time between people, and nothing lost between meetings.</p>
    <v-text-field v-model="email" label="Mail address" type="email" autocomplete="username" autofocus />
    <v-text-field
      v-model="password"
      label="Password"
      type="password"
      autocomplete="current-password"
      :error-messages="at('/password')"
    />
    <ProblemNote :error="rest" />
    <v-btn type="submit" :loading="isSigningIn" :disabled="!email || !password">Sign in</v-btn>
    <p><button type="button" class="quiet small" @click="forgotten = true">Forgotten your password?</button></p>
  </form>
  <form v-else class="sheet gate stack" novalidate @submit.prevent="ask(email)">
    <h1><Mark /> A new password</h1>
    <p class="soft">You are mailed a link to choose one. It works once, within an hour.</p>
    <v-text-field v-model="email" label="Mail address" type="email" autocomplete="username" autofocus />
    <ProblemNote :error="askError" />
    <p v-if="asked" role="status">If this address is known here, a link is on its way to it.</p>
    <v-btn type="submit" :loading="isAsking" :disabled="!email">Mail me a link</v-btn>
    <p><button type="button" class="quiet small" @click="forgotten = false">Back to signing in</button></p>
  </form>
</template>
