<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import LinkForm from './LinkForm.vue'
import { useLinkSubstitute, type LinkPath } from '../composables/useAnswerLink'
import { useFaults } from '../composables/useFaults'
import { mediumDay } from '../time'

/** Somebody invited sends another to one of the meetings that may be passed on. */
const { path, meetings } = defineProps<{ path: LinkPath; meetings: Schemas['LinkMeeting'][] }>()
const { pass, error, isPassing } = useLinkSubstitute(() => path)
const { at, rest } = useFaults(error, /^\/(name|email)$/)
const open = ref(false)
const form = ref({ meetingId: '', name: '', email: '' })
const done = ref('')

async function send() {
  const { name, meetingId } = form.value
  const day = mediumDay(meetings.find(meeting => meeting.id === meetingId)!.localStart)
  done.value = ''
  try {
    await pass({ ...form.value })
    open.value = false
    done.value = `${name} is asked to come instead on ${day}. You can come after all by answering again.`
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <LinkForm
    v-model="open"
    v-model:meeting-id="form.meetingId"
    :meetings="meetings"
    title="Send somebody else instead"
    verb="Ask them to come"
    which="on"
    :error="rest"
    :ready="!!form.name && !!form.email"
    :busy="isPassing"
    :done="done"
    @submit="send"
  >
    <v-text-field v-model="form.name" label="Their name" :error-messages="at('/name')" />
    <v-text-field v-model="form.email" type="email" label="Their mail address" :error-messages="at('/email')" />
  </LinkForm>
</template>
