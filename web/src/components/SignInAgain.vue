<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { api, dataOf, keepToken, onSignedOut, type Person, type Schemas } from '../api/client'
import { useFaults } from '../composables/useFaults'

/**
 * When the sign-in has run out while something was being typed: it is asked for over the page, and the write goes on.
 */
const { person } = defineProps<{ person: Person }>()
const cache = useQueryClient()
const open = ref(false)
const password = ref('')
const error = ref<Error | null>(null)
const busy = ref(false)
let waiting: ((again: boolean) => void)[] = []

const theirs = (session: Schemas['Session']) => session.person?.id === person.id
function settle(again: boolean) {
  open.value = false
  password.value = ''
  error.value = null
  waiting.forEach(go => go(again))
  waiting = []
}

onSignedOut(async () => {
  // Signed in again in another tab, perhaps: then there is only a new token.
  const session = await dataOf(api.GET('/session')).catch(() => null)
  if (session && theirs(session)) {
    keepToken(session.csrfToken)
    return true
  }
  if (session) keepToken(session.csrfToken)
  open.value = true
  return new Promise<boolean>(resolve => {
    waiting.push(resolve)
  })
})
onBeforeUnmount(() => onSignedOut(null))

async function signIn() {
  busy.value = true
  error.value = null
  try {
    const session = await dataOf(api.POST('/session', { body: { email: person.email, password: password.value } }))
    keepToken(session.csrfToken)
    settle(true)
  } catch (fault) {
    error.value = fault as Error
  } finally {
    busy.value = false
  }
}

function leave() {
  settle(false)
  cache.invalidateQueries({ queryKey: ['session'] })
}
const { at } = useFaults(error)
const fault = () => at('/password') ?? error.value?.message
</script>

<template>
  <v-dialog :model-value="open" persistent max-width="420" aria-labelledby="again">
    <v-card>
      <form class="again stack" novalidate @submit.prevent="signIn">
        <h2 id="again">Sign in again</h2>
        <p>
          You have been signed out, {{ person.name }}. What you typed is still here, and goes on when you have signed
          in.
        </p>
        <v-text-field :model-value="person.email" label="Mail address" readonly autocomplete="username" />
        <v-text-field
          v-model="password"
          label="Password"
          type="password"
          autocomplete="current-password"
          autofocus
          :error-messages="fault()"
        />
        <div class="row">
          <v-btn type="submit" :loading="busy" :disabled="!password">Sign in</v-btn
          ><v-btn variant="text" @click="leave">Sign in as somebody else</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.again {
  padding: 22px 26px;
}
</style>
