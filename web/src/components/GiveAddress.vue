<script setup lang="ts">
import { ref } from 'vue'
import { useCorrectAddress } from '../composables/useAnswers'
import { useFaults } from '../composables/useFaults'
import { useNotice } from '../composables/useNotice'
import FormDialog from './FormDialog.vue'

/** Somebody known by name alone gets an address, and can be told from then on. */
const { seriesId, person } = defineProps<{ seriesId: string; person: { id: string; name: string } }>()
const { correct, error, isCorrecting } = useCorrectAddress()
const { at } = useFaults(error, /^\/email$/)
const { say } = useNotice()
const open = ref(false)
const form = ref({ email: '' })

async function give() {
  try {
    await correct({ seriesId, personId: person.id, email: form.value.email })
    open.value = false
    say(`${person.name} has an address now, and is told with the next sending.`)
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <button type="button" class="quiet small" :aria-label="`Give ${person.name} an address`" @click="open = true">
    Give an address
  </button>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`address-${person.id}`"
    :title="`An address for ${person.name}`"
    verb="Save"
    :error="error"
    :busy="isCorrecting"
    @submit="give"
  >
    <v-text-field v-model="form.email" type="email" label="Mail address" :error-messages="at('/email')" autofocus />
  </FormDialog>
</template>
