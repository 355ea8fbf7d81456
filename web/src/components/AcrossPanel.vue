<script setup lang="ts">
import { computed, ref } from 'vue'
import FairLoad from './FairLoad.vue'
import ProblemNote from './ProblemNote.vue'
import RunDots from './RunDots.vue'
import type { Schemas } from '../api/client'
import { takingRun, takingTurns, type Taking } from '../commonTime'
import { clock, count, mediumDay } from '../time'

/** Times that suit across a whole run of meetings, what would mend the dates that do not, and taking turns. */
const { runs } = defineProps<{
  runs: Schemas['RunTimes'] | undefined
  meetings: number
  error: Error | null
  isRunning: boolean
}>()
const emit = defineEmits<{ take: [Taking] }>()
const chosenRule = ref('')
const run = computed(() => runs?.runs.find(one => one.rule + one.localStart === chosenRule.value) ?? runs?.runs[0])
</script>

<template>
  <section class="sheet" :class="{ waits: isRunning }" aria-labelledby="across">
    <div class="row spread">
      <h2 id="across">Across {{ count(meetings, 'meeting') }}</h2>
      <v-btn v-if="run" size="small" @click="emit('take', takingRun(run))"
        >Make a series at {{ clock(run.localStart)
        }}{{ run.dates.some(date => date.repair) ? ', with repairs' : '' }}</v-btn
      >
    </div>
    <ProblemNote :error="error" />
    <RunDots
      v-if="runs"
      :runs="runs.runs"
      :chosen="run"
      :zone-city="runs.zoneCity"
      @choose="
        one => {
          chosenRule = one.rule + one.localStart
        }
      "
    />
    <ul v-if="run?.dates.some(date => !date.held)" class="repairs small">
      <li v-for="date in run.dates.filter(one => !one.held)" :key="date.startsAt">
        <span class="alarm strong">{{ mediumDay(date.localStart) }}: {{ date.headline }}.</span>
        {{
          date.repair
            ? `Nearest that works: ${mediumDay(date.repair.localStart)}, ${clock(date.repair.localStart)}.`
            : 'No time near it works.'
        }}
      </li>
    </ul>
    <FairLoad v-if="runs" :load="runs.fairLoad" @take="plan => emit('take', takingTurns(plan))" />
  </section>
</template>

<style scoped>
.waits {
  cursor: progress;
}
.repairs {
  margin-top: 10px;
  display: grid;
  gap: 3px;
}
</style>
