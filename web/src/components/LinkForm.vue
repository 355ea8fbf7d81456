<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../api/client'
import ProblemNote from './ProblemNote.vue'
import { mediumDay } from '../time'

/** What somebody invited does about one of the meetings to come: a form that is unfolded, and says which is meant. */
const { meetings, done = '' } = defineProps<{
  meetings: Schemas['LinkMeeting'][]
  title: string
  verb: string
  /** What stands before the day of a meeting in the list. */
  which: string
  error: Error | null
  ready: boolean
  busy: boolean
  /** What has been sent, said where it was. */
  done?: string
}>()
const said = useTemplateRef('said')
watch(
  () => done,
  async words => {
    if (!words) return
    await nextTick()
    said.value?.focus()
  },
)
const emit = defineEmits<{ submit: [] }>()
const open = defineModel<boolean>({ required: true })
const meetingId = defineModel<string>('meetingId', { required: true })

// Which meeting is meant is never guessed where there are several.
function toggle() {
  open.value = !open.value
  meetingId.value = meetings.length === 1 ? meetings[0]!.id : ''
}
</script>

<template>
  <section>
    <button type="button" class="quiet" :aria-expanded="open" @click="toggle">{{ title }}</button>
    <p v-if="done && !open" ref="said" class="done strong" role="status" tabindex="-1">{{ done }}</p>
    <form v-if="open" class="stack unfolded" novalidate @submit.prevent="emit('submit')">
      <v-select
        v-if="meetings.length > 1"
        v-model="meetingId"
        :items="meetings.map(meeting => ({ title: `${which} ${mediumDay(meeting.localStart)}`, value: meeting.id }))"
        label="Which"
      />
      <slot />
      <ProblemNote :error="error" />
      <v-btn type="submit" variant="outlined" :disabled="!ready || !meetingId" :loading="busy">{{ verb }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
.done {
  margin-top: 8px;
  padding: 10px 14px;
  background: var(--pine-pale);
  border-left: 4px solid var(--pine);
}
</style>
