<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { calendarWords } from '../asking'
import type { Wish } from '../composables/useCommonTime'
import { useCommonTime } from '../composables/useCommonTime'
import { useCandidateCheck, useReadDates } from '../composables/useTimePolls'
import { clock, count, longDay, wallOf, zoneCity } from '../time'
import DaySilhouettes from './DaySilhouettes.vue'
import ProblemNote from './ProblemNote.vue'
import TimeToMove from './TimeToMove.vue'

/**
 * The times that are put to people: taken from the picture of the days, typed, or pasted; each with what is known of
 * everybody.
 */
const { wish, lengthMin, timeZone, fault } = defineProps<{
  wish: Wish | null
  lengthMin: number
  timeZone: string
  fault: (index: number) => string | undefined
}>()
const times = defineModel<Schemas['Candidate'][]>({ required: true })
const fromDay = defineModel<string>('fromDay', { required: true })
const emit = defineEmits<{ length: [minutes: number] }>()
const MOST = 40

const { found, error } = useCommonTime(() => wish)
const check = computed(() =>
  times.value.length && wish
    ? {
        people: wish.people,
        groups: wish.groups ?? [],
        starts: times.value.map(one => one.startsAt),
        lengthMin,
        timeZone,
        exceptMeetingId: wish.exceptMeetingId ?? null,
      }
    : null,
)
const { checked } = useCandidateCheck(check)
const inOrder = computed(() =>
  times.value.map((one, index) => ({ ...one, index })).sort((a, b) => (a.startsAt < b.startsAt ? -1 : 1)),
)
const marked = computed(() =>
  times.value.map(one => ({ id: one.id, localStart: wallOf(one.startsAt, timeZone), lengthMin })),
)
const same = (a: string, b: string) => new Date(a).getTime() === new Date(b).getTime()

/** All at once: the list is the page's, and changes for us only after it has been drawn again. */
function add(...starts: string[]) {
  const next = [...times.value]
  for (const startsAt of starts) {
    if (next.length < MOST && !next.some(one => same(one.startsAt, startsAt))) next.push({ id: newKey(), startsAt })
  }
  times.value = next
}
/** Pressed again, it goes. */
function toggle(startsAt: string) {
  const standing = times.value.find(one => same(one.startsAt, startsAt))
  if (standing) remove(standing.id)
  else add(startsAt)
}
const remove = (id: string) => (times.value = times.value.filter(one => one.id !== id))
/** At another time it is another one: what was answered was answered to the first. */
function move(id: string, startsAt: string) {
  if (times.value.some(one => same(one.startsAt, startsAt))) return
  times.value = times.value.map(one => (one.id === id ? { id: newKey(), startsAt } : one))
}

const { readDates, readError, isReading } = useReadDates()
const pasted = ref('')
const unread = ref<string[]>([])
async function take() {
  if (!pasted.value.trim()) return
  try {
    const read = await readDates({ text: pasted.value, timeZone })
    add(...read.times.map(one => one.startsAt))
    const length = read.times.find(one => one.lengthMin)?.lengthMin
    if (length) emit('length', length)
    unread.value = read.unread
    pasted.value = read.unread.join('\n')
  } catch {
    /* shown below */
  }
}
const step = (by: number) => {
  const at = new Date(`${fromDay.value}T00:00Z`)
  fromDay.value = new Date(at.getTime() + by * 7 * 86_400_000).toISOString().slice(0, 10)
}
</script>

<template>
  <div class="stack">
    <ProblemNote :error="error" />
    <div v-if="found" class="picture">
      <div class="row spread">
        <button type="button" class="quiet" @click="step(-1)">Earlier</button>
        <button type="button" class="quiet" @click="step(1)">Later</button>
      </div>
      <p class="small soft">
        Press a bar to put that time to people, or draw a time to another bar. Times in {{ zoneCity(timeZone) }}.
      </p>
      <DaySilhouettes :found="found" :marked="marked" @take="toggle" @move="move" />
    </div>
    <p v-else class="soft">Choose who is asked, and the days show when they are free.</p>
    <div class="typed">
      <v-textarea
        v-model="pasted"
        label="Or type or paste times"
        placeholder="Mon 7 Dec 14:00, Tue 8 Dec 9–10"
        rows="1"
        :error-messages="unread.length ? `Not understood: ${unread.join('; ')}` : undefined"
        @keydown.enter.exact.prevent="take"
      />
      <v-btn variant="outlined" :disabled="!pasted.trim()" :loading="isReading" @click="take">Add these</v-btn>
    </div>
    <ProblemNote :error="readError" />
    <ul v-if="times.length" class="ruled" aria-label="Times put to people">
      <li v-for="one in inOrder" :key="one.id">
        <div class="row">
          <span class="strong"
            >{{ longDay(wallOf(one.startsAt, timeZone)) }}, {{ clock(wallOf(one.startsAt, timeZone)) }}</span
          >
          <TimeToMove :starts-at="one.startsAt" :time-zone="timeZone" @move="at => move(one.id, at)" />
          <button
            type="button"
            class="quiet small"
            :aria-label="`Remove ${longDay(wallOf(one.startsAt, timeZone))}, ${clock(wallOf(one.startsAt, timeZone))}`"
            @click="remove(one.id)"
          >
            Remove
          </button>
        </div>
        <p v-if="fault(one.index)" class="small alarm" role="alert">{{ fault(one.index) }}</p>
        <p v-else class="small soft">{{ calendarWords(checked.get(one.startsAt)?.people ?? []) }}</p>
      </li>
    </ul>
    <p class="small soft" role="status">{{ count(times.length, 'time') }} of {{ MOST }} at most</p>
  </div>
</template>

<style scoped>
.typed {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: start;
}
.picture {
  min-width: 0;
}
</style>
