<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ProblemError } from '../api/client'
import Mark from '../components/Mark.vue'
import { house } from '../house'
import ProblemNote from '../components/ProblemNote.vue'
import { useSession } from '../composables/useSession'
import { useSignInLink } from '../composables/useSignIns'
import { useFaults } from '../composables/useFaults'

/** Choosing a password by a link that was mailed; it works once. */
const { token } = defineProps<{ token: string }>()
const { link, error } = useSignInLink(token)
const { choosePassword, chooseError, isChoosing } = useSession()
const router = useRouter()
const password = ref('')
const { at, rest } = useFaults(chooseError, /^\/password$/)
const isUsedUp = computed(() =>
  [error.value, chooseError.value].some(fault => fault instanceof ProblemError && fault.status === 404),
)

async function save() {
  try {
    await choosePassword({ token, password: password.value })
    router.replace('/')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <form class="sheet gate stack" novalidate @submit.prevent="save">
    <h1><Mark /> {{ house }}</h1>
    <template v-if="isUsedUp">
      <p role="alert">This link is not good any more: it was used, or its time is over.</p>
      <router-link to="/">Sign in, or ask for a new one</router-link>
    </template>
    <template v-else-if="link">
      <p>
        {{
          link.kind === 'invited'
            ? `Welcome, ${link.name}. Choose a password to sign in with.`
            : `Choose a new password, ${link.name}.`
        }}
      </p>
      <input
        class="visually-hidden"
        type="email"
        autocomplete="username"
        :value="link.email"
        aria-label="Mail address"
        tabindex="-1"
        readonly
      />
      <v-text-field
        v-model="password"
        label="Password, at least 12 characters"
        type="password"
        autocomplete="new-password"
        autofocus
        :error-messages="at('/password')"
      />
      <ProblemNote :error="rest" />
      <v-btn type="submit" :loading="isChoosing" :disabled="!password">Sign in</v-btn>
    </template>
    <ProblemNote v-else :error="error" />
  </form>
</template>
