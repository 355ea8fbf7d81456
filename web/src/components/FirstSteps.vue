<script setup lang="ts">
import { computed, ref } from 'vue'
import { mdiCheckCircle, mdiCircleOutline } from '@mdi/js'
import type { Schemas } from '../api/client'
import { useMine } from '../composables/useMine'

/**
 * What there is to do in an empty installation, in the order of the work; each step can be left, and all of them put
 * away.
 */
type Step = NonNullable<Schemas['Desk']['firstSteps']>[number]
const { steps, me } = defineProps<{ steps: Step[]; me: string }>()

const WORDS: Record<Step['step'], { title: string; about: string; to: string }> = {
  hours: { title: 'Your time zone and working hours', about: 'so that nobody asks you at night', to: `/people/${me}` },
  calendar: {
    title: 'Your calendar',
    about: 'a file or an address; others see that you are busy, never with what',
    to: `/people/${me}#calendars`,
  },
  people: { title: 'The people you meet', about: 'one by one, or from a table', to: '/people' },
  place: { title: 'A room', about: 'so that no two meetings have it at once', to: '/people?show=places' },
  series: { title: 'The first series', about: 'why it meets, when, and who comes', to: '/series/new' },
  invitation: { title: 'The invitation', about: 'open the series and send it', to: '/series' },
}
const key = useMine().mine('first-steps-away')
const away = ref(localStorage.getItem(key) !== null)
const next = computed(() => steps.find(step => !step.done)?.step)
function put(isAway: boolean) {
  away.value = isAway
  if (isAway) localStorage.setItem(key, '1')
  else localStorage.removeItem(key)
}
</script>

<template>
  <p v-if="away" class="small"><button type="button" class="quiet" @click="put(false)">Show the first steps</button></p>
  <section v-else class="sheet" aria-labelledby="first-steps">
    <div class="row spread">
      <h2 id="first-steps">First steps</h2>
      <button type="button" class="quiet small" @click="put(true)">Not now</button>
    </div>
    <ol class="ruled">
      <li v-for="{ step, done } in steps" :key="step" class="step">
        <v-icon :icon="done ? mdiCheckCircle : mdiCircleOutline" size="20" :class="done ? 'fresh' : 'soft'" />
        <span>
          <router-link class="strong" :to="WORDS[step].to">{{ WORDS[step].title }}</router-link><span
            class="visually-hidden"
            >{{ done ? ', done' : '' }}</span
          ><br />
          <span class="small soft">{{ WORDS[step].about }}</span>
        </span>
        <v-btn v-if="step === next" size="small" :to="WORDS[step].to" :aria-label="`Go on: ${WORDS[step].title}`"
          >Go on</v-btn
        >
      </li>
    </ol>
  </section>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 26px 1fr auto;
  align-items: center;
  gap: 6px;
}
h2 {
  margin-bottom: 4px;
}
</style>
