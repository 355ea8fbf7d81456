<script setup lang="ts">
import { computed } from 'vue'
import type { Sheet, Topic } from '../api/client'

/** What can be done with one topic as the meeting goes: put it off, share it, discuss it now; and who writes there. */
const { topic, sheet, discussed } = defineProps<{
  topic: Topic
  sheet: Sheet
  writes: string
  /** Key of what is being discussed, null before the meeting. */
  discussed: string | null
  sharing: boolean
}>()
const emit = defineEmits<{ putOff: []; share: []; discuss: [] }>()
const mayOrder = computed(() => sheet.may.hold && ['planned', 'in_session'].includes(sheet.state))
</script>

<template>
  <span v-if="writes" class="carried strong no-print">{{ writes }} writes here</span>
  <button
    v-if="mayOrder"
    type="button"
    class="quiet no-print"
    :aria-label="`${topic.putOff ? 'Take it after all' : 'Put off'}: ${topic.title}`"
    @click="emit('putOff')"
  >
    {{ topic.putOff ? 'Take it after all' : 'Put off' }}
  </button>
  <button
    v-if="topic.shared || (mayOrder && !topic.standing && !topic.closed)"
    type="button"
    class="quiet no-print"
    :aria-expanded="sharing"
    :aria-label="`${topic.shared ? 'Shared' : 'Share'}: ${topic.title}`"
    @click="emit('share')"
  >
    {{ topic.shared ? 'Shared' : 'Share' }}
  </button>
  <button
    v-if="sheet.may.hold && discussed !== null && discussed !== topic.id && !topic.putOff"
    type="button"
    class="quiet no-print"
    :aria-label="`Discuss now: ${topic.title}`"
    @click="emit('discuss')"
  >
    Discuss now
  </button>
</template>
