<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { useAnswerDeeds } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { count, list, mediumDay } from '../time'

/** Meetings with people who have not answered, and whether a quorum is sure; with one press to remind them. */
const { meetings, seriesId } = defineProps<{ meetings: Schemas['AnswerMeeting'][]; seriesId: string }>()
const { remind } = useAnswerDeeds(() => seriesId)
const { say, complain } = useNotice()
const shown = ref(3)
const waiting = computed(() =>
  meetings.filter(one => one.state !== 'called_off' && (one.silent.length > 0 || one.quorumNote)),
)

async function remindAll(meeting: Schemas['AnswerMeeting']) {
  try {
    const sending = await remind({ meetingId: meeting.id, id: newKey() })
    say(`${count(sending.recipients, 'person')} reminded.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
</script>

<template>
  <ul class="ruled">
    <li v-for="meeting in waiting.slice(0, shown)" :key="meeting.id" class="row spread">
      <span
        ><b>{{ mediumDay(meeting.localStart) }}</b
        ><template v-if="meeting.silent.length">: {{ list(meeting.silent) }} silent</template
        ><span v-if="meeting.quorumNote" class="alarm"> {{ meeting.quorumNote }}</span></span
      >
      <v-btn v-if="meeting.silent.length" size="small" variant="outlined" @click="remindAll(meeting)"
        >Remind {{ meeting.silent.length === 1 ? 'them' : `all ${meeting.silent.length}` }}</v-btn
      >
    </li>
  </ul>
  <p v-if="waiting.length > shown">
    <button type="button" class="quiet small" @click="shown = waiting.length">
      {{ waiting.length - shown }} more with silent people
    </button>
  </p>
</template>
