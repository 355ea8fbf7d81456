<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useAbsence } from '../composables/useAbsence'
import { useFaults } from '../composables/useFaults'
import { useNotice } from '../composables/useNotice'
import { clock, count, list, mediumDay } from '../time'
import { ANSWERS } from '../answers'
import DateField from './DateField.vue'
import ProblemNote from './ProblemNote.vue'

/** Away for some days in one go: what it would do is shown before it is done. */
const { id } = defineProps<{ id: string }>()
const form = ref({ fromDay: '', untilDay: '', word: '' })
const days = computed(() =>
  form.value.fromDay && form.value.untilDay ? { fromDay: form.value.fromDay, untilDay: form.value.untilDay } : null,
)
const { preview, previewError, keep, error, isKeeping } = useAbsence(
  () => id,
  () => days.value,
)
const { at, rest } = useFaults(previewError, /^\/untilDay$/)
const { say } = useNotice()
const chosen = ref<string[]>([])
watch(preview, found => {
  chosen.value = found?.meetings.filter(meeting => meeting.answer !== 'declined').map(meeting => meeting.id) ?? []
})
async function save() {
  const meetings = chosen.value.length
  const off = count(preview.value!.days, 'day')
  try {
    await keep({ ...days.value!, word: form.value.word || null, meetingIds: chosen.value })
    say(`${off} off${meetings ? `, and “I cannot” to ${count(meetings, 'meeting')}` : ''}.`)
    form.value = { fromDay: '', untilDay: '', word: '' }
  } catch {
    /* shown below */
  }
}
</script>

<template>
  <section aria-labelledby="absence">
    <h2 id="absence">Away for some days</h2>
    <form class="stack" novalidate @submit.prevent="save">
      <div class="row fields">
        <DateField v-model="form.fromDay" label="First day away" />
        <DateField v-model="form.untilDay" label="Last day away" :error-messages="at('/untilDay')" />
      </div>
      <ProblemNote :error="rest" />
      <template v-if="days && preview">
        <p class="small">
          {{ count(preview.days, 'day') }} off: nobody finds you free then.
          <template v-if="preview.keeps.length">
            You keep {{ list(preview.keeps) }} in these days: move or call them off yourself.</template
          >
        </p>
        <fieldset v-if="preview.meetings.length" class="plain">
          <legend class="small soft">“I cannot” is answered to</legend>
          <label v-for="meeting in preview.meetings" :key="meeting.id" class="one">
            <input v-model="chosen" type="checkbox" :value="meeting.id" />
            <span
              >{{ meeting.title }}, {{ mediumDay(meeting.localStart) }}, {{ clock(meeting.localStart)
              }}<span v-if="meeting.answer !== 'none'" class="soft"> · {{ ANSWERS[meeting.answer].you }}</span></span
            >
          </label>
        </fieldset>
        <p v-else class="small soft">You are asked to nothing in these days.</p>
        <v-text-field v-model="form.word" label="Why (it goes with the answers)" maxlength="120" />
        <ProblemNote :error="error" />
        <p><v-btn type="submit" variant="outlined" :loading="isKeeping">Save the days away</v-btn></p>
      </template>
    </form>
  </section>
</template>

<style scoped>
.stack {
  margin-top: 10px;
}
.fields > * {
  flex: 1 1 150px;
}
.plain {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.one {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
