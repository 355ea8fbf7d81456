<script setup lang="ts">
import { ref } from 'vue'
import { type Schemas } from '../api/client'
import { useCorrectAddress } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { useFaults } from '../composables/useFaults'

/** Somebody whom mail does not reach: their address is put right, and the last mail goes once more. */
const { mail } = defineProps<{ mail: Schemas['Desk']['failedMails'][number] }>()
const { correct, error, isCorrecting } = useCorrectAddress()
const { say } = useNotice()
const email = ref(mail.email)
const editing = ref(false)

async function send() {
  try {
    await correct({ seriesId: mail.seriesId, personId: mail.personId, email: email.value })
    editing.value = false
    say(`Sent again to ${email.value}.`)
  } catch {
    /* shown at the field */
  }
}
const { at } = useFaults(error)
const fault = () => at('/email') ?? error.value?.message
</script>

<template>
  <li>
    <p>
      <router-link class="strong" :to="`/series/${mail.seriesId}?show=history`">{{ mail.title }}</router-link>
    </p>
    <p class="small alarm">Mail does not reach {{ mail.name }} at {{ mail.email }}: {{ mail.error }}</p>
    <form v-if="editing" class="row form" novalidate @submit.prevent="send">
      <v-text-field
        v-model="email"
        type="email"
        label="Mail address"
        autofocus
        :readonly="!mail.guest"
        :error-messages="fault()"
      />
      <v-btn type="submit" size="small" variant="outlined" :loading="isCorrecting">Send again</v-btn>
    </form>
    <p v-else class="row">
      <button
        type="button"
        class="quiet small"
        :aria-label="`${mail.guest ? 'Correct and send again' : 'Send again'}: ${mail.name}`"
        @click="editing = true"
      >
        {{ mail.guest ? 'Correct and send again' : 'Send again' }}
      </button>
      <router-link v-if="!mail.guest" class="small" to="/people"
        >Correct the address under People &amp; places</router-link
      >
    </p>
  </li>
</template>

<style scoped>
.form {
  align-items: center;
  margin-top: 6px;
}
.form > .v-input {
  flex: 1 1 200px;
}
</style>
