<script setup lang="ts">
import { computed, ref } from 'vue'
import { ProblemError } from '../api/client'
import Mark from '../components/Mark.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useSession } from '../composables/useSession'

const { signIn, signInError, isSigningIn } = useSession()
const email = ref('')
const password = ref('')
const atField = computed(() => (signInError.value instanceof ProblemError ? signInError.value.at('/password') : undefined))
</script>

<template>
  <form class="sheet gate stack" novalidate @submit.prevent="signIn({ email, password })">
    <h1 class="title"><Mark /> Left Over</h1>
    <p class="soft">Common time between people, and nothing lost between meetings.</p>
    <v-text-field v-model="email" label="Mail address" type="email" autocomplete="username" autofocus />
    <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" :error-messages="atField" />
    <ProblemNote v-if="!atField" :error="signInError" />
    <v-btn type="submit" :loading="isSigningIn" :disabled="!email || !password">Sign in</v-btn>
  </form>
</template>

<style scoped>
.gate { width: min(420px, calc(100vw - 28px)); margin: 12vh auto 0; }
.title { display: flex; gap: 12px; align-items: center; }
</style>
