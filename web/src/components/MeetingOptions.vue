<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Schemas } from '../api/client'
import { mediumDay } from '../time'
import FormDialog from './FormDialog.vue'
import OptionFields from './OptionFields.vue'

/** What holds for one meeting alone. */
const { meeting, error, busy } = defineProps<{
  meeting: Schemas['AnswerMeeting'] | null
  error: Error | null
  busy: boolean
}>()
const emit = defineEmits<{ keep: [Schemas['MeetingOptions']]; close: [] }>()

const own = ref(false)
const options = ref<Schemas['Options']>({ passOn: false, answersAsked: true, signUp: false, signUpLimit: null })
const remindMin = ref<number | null>(null)
const REMINDERS = [
  { title: 'as the series has it', value: null },
  { title: 'none', value: 0 },
  { title: '15 minutes before', value: 15 },
  { title: 'an hour before', value: 60 },
  { title: 'a day before', value: 1440 },
]
watch(
  () => meeting,
  found => {
    if (!found) return
    const { passOn, answersAsked, signUp, signUpLimit } = found.options
    options.value = {
      passOn: passOn ?? false,
      answersAsked: answersAsked ?? true,
      signUp: signUp ?? false,
      signUpLimit,
    }
    remindMin.value = found.ownOptions.remindMin
    own.value =
      found.ownOptions.signUp !== null || found.ownOptions.answersAsked !== null || found.ownOptions.passOn !== null
  },
)
const keep = () =>
  emit(
    'keep',
    own.value
      ? { ...options.value, remindMin: remindMin.value }
      : { passOn: null, answersAsked: null, signUp: null, signUpLimit: null, remindMin: remindMin.value },
  )
</script>

<template>
  <FormDialog
    v-if="meeting"
    :model-value="true"
    :title="`Options of ${mediumDay(meeting.localStart)}`"
    verb="Save"
    :error="error"
    :busy="busy"
    @update:model-value="emit('close')"
    @submit="keep"
  >
    <v-checkbox v-model="own" label="This meeting differs from the series" />
    <OptionFields v-if="own" v-model="options" />
    <v-select v-model="remindMin" :items="REMINDERS" label="Reminder by mail" />
  </FormDialog>
</template>
