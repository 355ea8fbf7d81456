<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import { useAgenda } from '../composables/useAgenda'
import { useNotice } from '../composables/useNotice'
import { mediumDay } from '../time'
import FormDialog from './FormDialog.vue'

/** A meeting to come soon that has nothing on it: called off, or topics are asked for. */
const { meeting } = defineProps<{ meeting: Schemas['Desk']['emptyMeetings'][number] }>()
const { ask, callOff, isSending } = useAgenda(() => meeting.meetingId)
const { say, complain } = useNotice()
const open = ref(false)
const form = ref({ reason: 'Nothing on it' })

async function off() {
  try {
    await callOff(form.value.reason)
    open.value = false
    say(`“${meeting.title}” is called off. Nobody is told until you send the invitation again.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
</script>

<template>
  <li>
    <router-link class="strong" :to="`/meetings/${meeting.meetingId}`"
      >{{ meeting.title }}, {{ mediumDay(meeting.localStart) }}</router-link
    >
    <p class="small">
      <span class="soft">nothing is on it</span>
      <button type="button" class="quiet" :aria-label="`Call it off: ${meeting.title}`" @click="open = true">
        Call it off
      </button>
      <button
        type="button"
        class="quiet"
        :disabled="isSending"
        :aria-label="`Ask for topics: ${meeting.title}`"
        @click="ask()"
      >
        Ask for topics
      </button>
    </p>
    <FormDialog v-model="open" v-model:form="form" title="Call the meeting off" verb="Call it off" @submit="off">
      <v-text-field v-model="form.reason" label="Why" autofocus />
    </FormDialog>
  </li>
</template>
