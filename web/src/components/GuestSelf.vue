<script setup lang="ts">
import { ref } from 'vue'
import ProblemNote from './ProblemNote.vue'
import ZoneField from './ZoneField.vue'
import { useLinkSelf, type LinkPath } from '../composables/useAnswerLink'
import { useFaults } from '../composables/useFaults'

/** How a guest is called and where they are: they know it better than whoever invited them. */
const { path, name, timeZone } = defineProps<{ path: LinkPath; name: string; timeZone: string }>()
const { describe, error, isDescribing } = useLinkSelf(() => path)
const { at, rest } = useFaults(error, /^\/(name|timeZone)$/)
const open = ref(false)
const said = ref('')
const form = ref({ name: '', timeZone: '' })
function toggle() {
  open.value = !open.value
  form.value = { name, timeZone }
  said.value = ''
}
async function save() {
  try {
    await describe(form.value)
    open.value = false
    said.value = 'Saved. Mails say times of day as you have them there.'
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section>
    <button type="button" class="quiet" :aria-expanded="open" @click="toggle">My name and time zone</button>
    <form v-if="open" class="stack unfolded" novalidate @submit.prevent="save">
      <v-text-field v-model="form.name" label="Your name" :error-messages="at('/name')" />
      <ZoneField v-model="form.timeZone" :error-messages="at('/timeZone')" />
      <ProblemNote :error="rest" />
      <v-btn type="submit" variant="outlined" :loading="isDescribing">Save</v-btn>
    </form>
    <p class="small fresh" role="status">{{ said }}</p>
  </section>
</template>
