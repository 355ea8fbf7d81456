<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import ProblemNote from './ProblemNote.vue'
import { useLinkSubstitute, type LinkPath } from '../composables/useAnswerLink'
import { useFaults } from '../composables/useFaults'
import { mediumDay } from '../time'

/** Somebody invited sends another to one of the meetings that may be passed on. */
const { path, meetings } = defineProps<{ path: LinkPath; meetings: Schemas['LinkMeeting'][] }>()
const emit = defineEmits<{ done: [words: string] }>()
const { pass, error, isPassing } = useLinkSubstitute(() => path)
const { at, rest } = useFaults(error, /^\/(name|email)$/)
const open = ref(false)
const form = ref({ meetingId: '', name: '', email: '' })

/** Which meeting is meant is never guessed where there are several. */
function toggle() {
  open.value = !open.value
  form.value.meetingId = meetings.length === 1 ? meetings[0]!.id : ''
}
async function send() {
  const { name } = form.value
  try {
    await pass({ ...form.value })
    open.value = false
    emit('done', `${name} is asked to come instead. You can come after all by answering again.`)
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section>
    <button type="button" class="quiet" :aria-expanded="open" @click="toggle">Send somebody else instead</button>
    <form v-if="open" class="stack unfolded" novalidate @submit.prevent="send">
      <v-select
        v-if="meetings.length > 1"
        v-model="form.meetingId"
        :items="meetings.map(meeting => ({ title: `on ${mediumDay(meeting.localStart)}`, value: meeting.id }))"
        label="Which"
      />
      <v-text-field v-model="form.name" label="Their name" :error-messages="at('/name')" />
      <v-text-field v-model="form.email" type="email" label="Their mail address" :error-messages="at('/email')" />
      <ProblemNote :error="rest" />
      <v-btn
        type="submit"
        variant="outlined"
        :disabled="!form.email || !form.name || !form.meetingId"
        :loading="isPassing"
        >Ask them to come</v-btn
      >
    </form>
  </section>
</template>
