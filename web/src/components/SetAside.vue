<script setup lang="ts">
import { computed } from 'vue'
import { useSetAside } from '../composables/useSetAside'
import { since } from '../time'

/** What goes on in the background and could not be done, and why; only for who looks after people and places. */
const { enabled } = defineProps<{ enabled: boolean }>()
const { setAside, tryAgain, isTrying } = useSetAside(() => enabled)
const KINDS = {
  mails: 'Mail to send',
  incomingMails: 'Mail that came in',
  calendars: 'Calendar',
  calls: 'Call to make',
  steps: 'Regular work',
} as const
const entries = computed(() =>
  setAside.value
    ? (Object.keys(KINDS) as (keyof typeof KINDS)[]).flatMap(kind =>
        setAside.value![kind].map(entry => ({ ...entry, kind: KINDS[kind] })),
      )
    : [],
)
</script>

<template>
  <section v-if="setAside?.notes.length" class="sheet stack" aria-labelledby="set-up">
    <h2 id="set-up">Needs a look</h2>
    <p v-for="note in setAside.notes" :key="note" class="alarm">{{ note }}</p>
  </section>
  <section v-if="entries.length" class="sheet stack" aria-labelledby="set-aside">
    <h2 id="set-aside">Set aside</h2>
    <p class="small soft">Tried three times without success, and left alone so that nothing else waits for it.</p>
    <ul class="ruled small">
      <li v-for="entry in entries" :key="entry.kind + entry.id">
        {{ entry.kind }}: “{{ entry.title }}” <span class="soft">{{ since(entry.at) }}</span> {{ ' '
        }}<span class="alarm">{{ entry.reason }}</span>
      </li>
    </ul>
    <p><v-btn size="small" variant="outlined" :loading="isTrying" @click="tryAgain()">Try all again</v-btn></p>
  </section>
</template>
