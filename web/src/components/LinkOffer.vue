<script setup lang="ts">
import { ref } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import MomentField from './MomentField.vue'
import ProblemNote from './ProblemNote.vue'
import { useLinkOffer, type LinkPath } from '../composables/useAnswerLink'
import { useFaults } from '../composables/useFaults'
import { mediumDay } from '../time'

/** Somebody invited offers another time for one of the meetings to come. */
const { path, meetings } = defineProps<{ path: LinkPath; meetings: Schemas['LinkMeeting'][]; zoneCity: string }>()
const emit = defineEmits<{ done: [words: string] }>()
const { offer, error, isOffering } = useLinkOffer(() => path)
const { at, rest } = useFaults(error, /^\/localStart$/)
const open = ref(false)
const form = ref({ meetingId: '', at: '', note: '' })

/** Which meeting is meant is never guessed where there are several. */
function toggle() {
  open.value = !open.value
  form.value.meetingId = meetings.length === 1 ? meetings[0]!.id : ''
}
async function send() {
  const { meetingId, at: localStart, note } = form.value
  try {
    await offer({ id: newKey(), meetingId, localStart, note: note || null })
    open.value = false
    emit('done', 'Your offer is with the keeper, who takes it or turns it down.')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section>
    <button type="button" class="quiet" :aria-expanded="open" @click="toggle">Offer another time</button>
    <form v-if="open" class="stack unfolded" novalidate @submit.prevent="send">
      <v-select
        v-if="meetings.length > 1"
        v-model="form.meetingId"
        :items="meetings.map(meeting => ({ title: `instead of ${mediumDay(meeting.localStart)}`, value: meeting.id }))"
        label="Which"
      />
      <MomentField v-model="form.at" :label="`Begins on, ${zoneCity} time`" :error-messages="at('/localStart')" />
      <v-text-field v-model="form.note" label="A note with it (optional)" />
      <ProblemNote :error="rest" />
      <v-btn type="submit" variant="outlined" :disabled="!form.at || !form.meetingId" :loading="isOffering"
        >Send the offer</v-btn
      >
    </form>
  </section>
</template>
