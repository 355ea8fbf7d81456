<script setup lang="ts">
import { useUnsent, type UnsentLine } from '../composables/useUnsent'

const { entry } = defineProps<{ entry: UnsentLine }>()
const { discard, tryAgain } = useUnsent(() => entry.meetingId)
</script>

<template>
  <li class="unsent">
    <span class="mark">unsent</span>
    <p>
      {{ entry.line.text }}
      <template v-if="entry.refusal"
        >{{ ' ' }}<span class="alarm">{{ entry.refusal }}</span> {{ ' '
        }}<button type="button" class="quiet" @click="tryAgain(entry)">Try again</button> {{ ' '
        }}<button type="button" class="quiet" @click="discard(entry)">Discard</button></template
      >
      <span v-else class="soft small">{{ ' ' }}saved in this browser, sent as soon as there is a connection</span>
    </p>
  </li>
</template>

<style scoped>
.unsent {
  display: grid;
  grid-template-columns: 58px 1fr;
  gap: 12px;
  padding: 3px 0;
}
.mark {
  text-align: right;
  font-size: 0.8571rem;
  font-weight: 700;
  color: var(--alarm-ink);
  padding-top: 2px;
}
p {
  font-size: 1.0714rem;
  overflow-wrap: anywhere;
}
</style>
