<script setup lang="ts">
import type { ShownLine } from '../deeds'
import { list, shortDay } from '../time'

/** What a line says: its words, whose it is and by when, how it was voted on. */
defineProps<{ line: ShownLine; belowQuorum?: boolean }>()
</script>

<template>
  <span class="words" :class="{ closed: line.action && line.action.state !== 'open' }">{{ line.text }}</span>
  <template v-if="line.action"
    >{{ ' '
    }}<b>{{
      list(
        line.action.owners.map(owner => owner.name),
        'nobody yet',
      )
    }}</b
    >{{ ' ' }}<span v-if="line.action.dueOn" class="soft">due {{ shortDay(line.action.dueOn) }}</span
    >{{ ' ' }}<span v-if="line.action.state !== 'open'" class="fresh strong">{{ line.action.state }}</span></template
  >
  <span v-if="line.motion" class="small motion" :class="{ alarm: line.motion.outcome !== 'carried' }">
    <template v-if="line.motion.proposer">proposed by {{ line.motion.proposer.name }}</template
    ><template v-if="line.motion.seconder">, seconded by {{ line.motion.seconder.name }}</template
    >{{ line.motion.words ? ` · ${line.motion.words}` : ' · not voted on yet' }}</span
  >
  <span v-if="line.kind === 'decision' && belowQuorum" class="small alarm"> · below quorum</span>
</template>

<style scoped>
.words {
  white-space: pre-line;
}
.motion {
  display: block;
}
.closed {
  text-decoration: line-through;
  color: var(--soft);
}
</style>
