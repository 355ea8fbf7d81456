<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import ProblemNote from '../components/ProblemNote.vue'
import SpeakersPanel from '../components/SpeakersPanel.vue'
import { useSession } from '../composables/useSession'
import { useSheet } from '../composables/useSheet'
import { now as momentNow } from '../present'
import { clock, wallNow } from '../time'
import { useTitle } from '../composables/useTitle'

/** For a second screen, read from afar: what is spoken about, how long still, what comes next, who wants to speak. */
const { id } = defineProps<{ id: string }>()
const { sheet, error, discuss, isActing } = useSheet(() => id)
useTitle(() => sheet.value && `For the chair: ${sheet.value.seriesTitle}`)
const { person: me } = useSession()

const now = ref(momentNow())
const timer = setInterval(() => (now.value = momentNow()), 1_000)
onBeforeUnmount(() => clearInterval(timer))
// What was used is told with the sheet; the seconds since then are counted here.
const readAt = computed(() => (sheet.value ? new Date(sheet.value.now).getTime() : now.value))
const topics = computed(() => sheet.value?.topics.filter(topic => !topic.putOff) ?? [])
const at = computed(() => topics.value.findIndex(topic => topic.present))
const present = computed(() => topics.value[at.value])
const next = computed(() => topics.value[at.value + 1])
const usedMin = computed(() => {
  const slot = present.value ?? sheet.value?.runningOrder.leftOver
  return Math.ceil((slot?.usedS ?? 0) / 60 + Math.max(0, now.value - readAt.value) / 60_000)
})
const plannedMin = computed(() => present.value?.lengthMin ?? sheet.value?.leftOverMin ?? 0)
const left = computed(() => plannedMin.value - usedMin.value)
// Common practice: a word shortly before the end of a topic, not at it.
const WARN_MIN = 2
const tone = computed(() => (left.value < 0 ? 'alarm' : left.value <= WARN_MIN ? 'carried' : 'fresh'))
</script>

<template>
  <div class="chair">
    <ProblemNote :error="error" />
    <template v-if="sheet">
      <p class="soft">
        <router-link :to="`/meetings/${id}`">{{ sheet.seriesTitle }}</router-link> ·
        {{ clock(wallNow(sheet.timeZone, new Date(now))) }} · ends {{ clock(sheet.runningOrder.localEnd) }}
      </p>
      <template v-if="sheet.state === 'in_session'">
        <h1>{{ present?.title ?? 'Left over' }}</h1>
        <p class="left" :class="tone" role="timer">
          {{ left >= 0 ? `${left} min left` : `${-left} min over` }}
        </p>
        <p v-if="next" class="next">
          Next: <b>{{ next.title }}</b> <span class="soft">{{ next.lengthMin }} min</span>
          <v-btn v-if="sheet.may.hold" variant="outlined" :loading="isActing" @click="discuss(next.id)">Go on</v-btn>
        </p>
        <p v-else class="next soft">This is the last.</p>
        <SpeakersPanel :sheet="sheet" :me="me?.id ?? ''" />
      </template>
      <h1 v-else class="soft">{{ sheet.state === 'planned' ? 'Not begun yet' : 'The meeting is over' }}</h1>
    </template>
  </div>
</template>

<style scoped>
.chair {
  max-width: 1100px;
  margin: 0 auto;
  padding: 24px;
  font-size: 1.4rem;
}
.chair h1 {
  font-size: clamp(2.4rem, 7vw, 5rem);
  line-height: 1.1;
  overflow-wrap: anywhere;
  margin: 18px 0;
}
.left {
  font-size: clamp(3rem, 10vw, 7rem);
  font-weight: 700;
  font-variant-numeric: tabular-nums;
  line-height: 1.1;
}
.next > .v-btn {
  margin-left: 18px;
}
.next {
  margin: 24px 0;
  font-size: 1.8rem;
}
</style>
