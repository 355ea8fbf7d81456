<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import { mediumDay } from '../time'
import MomentField from './MomentField.vue'
import { ANSWERS, GIVEN } from '../answers'

/** Answering another's meeting: which of its dates, a word, and the answer. */
const { meeting, busy } = defineProps<{ meeting: Schemas['OutsideMeeting']; busy: boolean }>()
const emit = defineEmits<{ answer: [Schemas['OutsideAnswer']]; offer: [Schemas['OutsideOffer']] }>()

const note = ref(meeting.note ?? '')
const which = ref('')
const offering = ref(false)
const at = ref('')
</script>

<template>
  <form class="stack" novalidate @submit.prevent>
    <v-select
      v-if="meeting.dates.length > 1"
      v-model="which"
      :items="[
        { title: 'to all its dates', value: '' },
        ...meeting.dates.map(date => ({ title: `on ${mediumDay(date.localStart)} only`, value: date.recurrenceAt })),
      ]"
      label="This is my answer"
    />
    <v-text-field v-model="note" label="A note with it (optional)" />
    <p class="row">
      <v-btn
        v-for="word in GIVEN"
        :key="word"
        size="small"
        variant="outlined"
        :disabled="busy"
        :aria-label="`${ANSWERS[word].i}: ${meeting.title}`"
        @click="emit('answer', { answer: word, note: note || null, recurrenceAt: which || null })"
        >{{ ANSWERS[word].i }}</v-btn><button
        type="button"
        class="quiet small"
        :aria-expanded="offering"
        @click="offering = !offering"
      >
        Offer another time
      </button>
    </p>
    <div v-if="offering" class="row">
      <MomentField v-model="at" :label="`Begins on, ${meeting.zoneCity} time`" class="offer" /><v-btn
        size="small"
        variant="outlined"
        :disabled="!at || busy"
        @click="emit('offer', { localStart: at, recurrenceAt: which || null, note: note || null })"
        >Send the offer</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
form {
  padding: 6px 0;
}
.offer {
  flex: 1 1 260px;
}
</style>
