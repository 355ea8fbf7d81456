<script setup lang="ts">
import type { Schemas } from '../api/client'
import { mediumDay, shortDay } from '../time'

/** Meetings somebody has missed: what was decided in each, and given to whom. */
defineProps<{ meetings: Schemas['CatchingUp']['meetings']; linked?: boolean }>()
const STATES = { open: '', done: 'done', dropped: 'dropped', handed_over: 'handed over' }
</script>

<template>
  <div v-for="meeting in meetings" :key="meeting.id" class="sheet one">
    <component :is="linked ? 'h2' : 'h3'" class="eyebrow">
      <router-link v-if="linked" :to="`/meetings/${meeting.id}`">{{ mediumDay(meeting.on) }}</router-link><template
        v-else
        >{{ mediumDay(meeting.on) }}</template
      >
      <span v-if="meeting.state === 'closed'" class="soft small"> draft minutes</span>
    </component>
    <ul v-if="meeting.decisions.length || meeting.actions.length" class="ruled">
      <li v-for="decision in meeting.decisions" :key="decision.lineId" class="row said">
        <b class="pine">Decided {{ decision.number }}</b>
        <span
          >{{ decision.text }}<span v-if="decision.motion" class="soft small"> · {{ decision.motion }}</span
          ><span v-if="decision.belowQuorum" class="alarm strong small"> · below quorum</span></span
        >
      </li>
      <li v-for="action in meeting.actions" :key="action.id" class="row said">
        <b class="carried">{{ action.mine ? 'For you' : 'Action' }}</b>
        <span
          >{{ action.text
          }}<span class="soft small">
            · {{ action.owners.map(owner => owner.name).join(', ') || 'nobody yet'
            }}{{ action.dueOn ? ` · due ${shortDay(action.dueOn)}` : ''
            }}{{ STATES[action.state] ? ` · ${STATES[action.state]}` : '' }}</span
          ></span
        >
      </li>
    </ul>
    <p v-else class="soft">Nothing was decided, and no action was raised.</p>
  </div>
</template>

<style scoped>
.one {
  margin-bottom: 14px;
}
.said {
  display: grid;
  grid-template-columns: 118px 1fr;
  gap: 2px 12px;
  padding: 6px 0;
  overflow-wrap: anywhere;
}
.pine {
  color: var(--pine);
}
@media (max-width: 600px) {
  .said {
    grid-template-columns: 1fr;
  }
}
</style>
