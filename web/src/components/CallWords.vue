<script setup lang="ts">
import type { Schemas } from '../api/client'

/** The online side of a meeting, in one line: where to go, with which passcode, or which number to dial. */
const {
  call,
  whole = false,
  words = 'call',
} = defineProps<{ call: Schemas['Call']; whole?: boolean; words?: string }>()
</script>

<template>
  <span
    ><a v-if="call.url" :href="call.url" rel="noopener noreferrer" target="_blank">{{
      whole && (call.ours ?? null) === null ? call.url : words
    }}</a
    ><template v-if="call.passcode">{{ call.url ? ', ' : '' }}passcode {{ call.passcode }}</template
    ><template v-if="call.dialIn"
      >{{ call.url ? ', or ' : call.passcode ? ', ' : '' }}dial {{ call.dialIn }}</template
    ></span
  >
</template>
