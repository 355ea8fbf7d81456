<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Sheet } from '../api/client'
import { useExtras } from '../composables/useExtras'
import { useNotice } from '../composables/useNotice'
import { usePeople } from '../composables/usePeople'
import { useFaults } from '../composables/useFaults'
import ProblemNote from './ProblemNote.vue'

/** Asking somebody to this meeting alone: who is here, or a guest by address. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const { people } = usePeople()
const { ask, askError, isAsking } = useExtras(() => sheet.id)
const { say } = useNotice()
const open = ref(false)
const empty = () => ({ personId: null as string | null, name: '', email: '' })
const form = ref(empty())
const choices = computed(() =>
  (people.value ?? [])
    .filter(person => !sheet.people.some(one => one.id === person.id))
    .map(person => ({ title: person.name, value: person.id })),
)
const { at, rest } = useFaults(askError, /^\/(personId|name|email)$/)
const ready = computed(() => !!form.value.personId || form.value.email.includes('@'))

async function send() {
  const { personId, name, email } = form.value
  const who = personId ? choices.value.find(one => one.value === personId)!.title : name || email
  try {
    await ask(personId ? { personId } : { name, email })
    say(
      sheet.state === 'in_session'
        ? `${who} is asked too, and told at once.`
        : `${who} is asked too. Nobody is told until you send the invitation.`,
    )
    form.value = empty()
    open.value = false
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <button v-if="!open" type="button" class="quiet small" @click="open = true">Ask somebody else too</button>
  <form v-else class="too" novalidate @submit.prevent="send">
    <v-autocomplete
      v-model="form.personId"
      :items="choices"
      label="Who"
      clearable
      autofocus
      no-data-text="Nobody else is here."
      :error-messages="at('/personId')"
    />
    <template v-if="!form.personId">
      <v-text-field v-model="form.name" label="Or a guest's name" :error-messages="at('/name')" />
      <v-text-field v-model="form.email" label="Guest's mail address" type="email" :error-messages="at('/email')" />
    </template>
    <ProblemNote :error="rest" />
    <p class="row">
      <v-btn type="submit" size="small" :disabled="!ready" :loading="isAsking">Ask them</v-btn
      ><button type="button" class="quiet small" @click="open = false">Cancel</button>
    </p>
  </form>
</template>

<style scoped>
.too {
  display: grid;
  gap: 8px;
  margin: 6px 0;
}
</style>
