<script setup lang="ts">
import { ref } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import LinkForm from './LinkForm.vue'
import MomentField from './MomentField.vue'
import { useLinkOffer, type LinkPath } from '../composables/useAnswerLink'
import { useFaults } from '../composables/useFaults'
import { clock, mediumDay, zoneCity } from '../time'

/** Somebody invited offers another time for one of the meetings to come. */
const { path, meetings, timeZone } = defineProps<{
  path: LinkPath
  meetings: Schemas['LinkMeeting'][]
  /** Of the reader: what is typed is meant there. */
  timeZone: string
}>()
const { offer, error, isOffering } = useLinkOffer(() => path)
const { at, rest } = useFaults(error, /^\/localStart$/)
const open = ref(false)
const form = ref({ meetingId: '', at: '', note: '' })
const done = ref('')

async function send() {
  const { meetingId, at: localStart, note } = form.value
  const day = mediumDay(meetings.find(meeting => meeting.id === meetingId)!.localStart)
  done.value = ''
  try {
    await offer({ id: newKey(), meetingId, localStart, note: note || null })
    open.value = false
    done.value =
      `You have offered ${mediumDay(localStart)}, ${clock(localStart)} instead of ${day}. ` +
      'The keeper takes it or turns it down; you hear of it by mail.'
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
    title="Offer another time"
    verb="Send the offer"
    which="instead of"
    :error="rest"
    :ready="!!form.at"
    :busy="isOffering"
    :done="done"
    @submit="send"
  >
    <MomentField
      v-model="form.at"
      :label="`Begins on, ${zoneCity(timeZone)} time`"
      :error-messages="at('/localStart')"
    />
    <v-text-field v-model="form.note" label="A note with it (optional)" />
  </LinkForm>
</template>
