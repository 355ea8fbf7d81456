<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import { ProblemError, type Schemas } from '../api/client'
import { useHolds } from '../composables/useCommonTime'
import { useNotice } from '../composables/useNotice'
import { useCreateSeries } from '../composables/useSeries'
import { longDay, clock } from '../time'
import FormDialog from './FormDialog.vue'

/** What is taken: a hold, a single meeting, or a series with its repairs. */
export interface Taking {
  kind: 'hold' | 'meeting' | 'series'
  startsAt: string
  localStart: string
  rule: string | null
  dates: string[]
  moves: { from: string; to: string }[]
}
const { taking, people, lengthMin, timeZone, placeId, beforeMin, afterMin } = defineProps<{
  taking: Taking; people: Schemas['Asked'][]; lengthMin: number; timeZone: string; placeId: string | null; beforeMin: number; afterMin: number
}>()
const open = defineModel<boolean>({ required: true })

const { keep, keepError, isKeeping } = useHolds()
const { create, error: createError, isCreating } = useCreateSeries()
const router = useRouter()
const { say } = useNotice()
const title = ref('')
const expiresOn = ref('')
const tried = ref(false)
let key = newKey()
watch(open, shown => { if (shown) { key = newKey(); tried.value = false } })

const WORDS = { hold: ['Hold this time', 'Hold it'], meeting: ['Make a meeting', 'Make the meeting'], series: ['Make a series', 'Make the series'] } as const
const error = computed(() => (taking.kind === 'hold' ? keepError.value : createError.value))
const titleFault = computed(() => (tried.value && !title.value.trim() ? 'Give it a title.' : error.value instanceof ProblemError ? error.value.at('/title') : undefined))
const expiryFault = computed(() => (error.value instanceof ProblemError ? error.value.at('/expiresOn') : undefined))

async function take() {
  tried.value = true
  if (!title.value.trim()) return
  const place = placeId ? { placeId, beforeMin, afterMin } : {}
  try {
    if (taking.kind === 'hold') {
      await keep({ id: key, title: title.value, startsAt: taking.startsAt, lengthMin, timeZone, people, ...place, expiresOn: expiresOn.value || null })
      say('The time is held. It stands on your Desk until you settle it.')
    } else {
      const series = await create({ id: key, title: title.value, run: { localStart: taking.localStart.slice(0, 16), timeZone, lengthMin, rule: taking.rule, dates: taking.dates }, members: people, moves: taking.moves, ...place })
      router.push(`/series/${series.id}`)
    }
    open.value = false
  } catch { /* shown at the field */ }
}
</script>

<template>
  <FormDialog v-model="open" :title="WORDS[taking.kind][0]" :verb="WORDS[taking.kind][1]" :error="titleFault || expiryFault ? null : error" :busy="isKeeping || isCreating" @submit="take">
    <p class="soft">
      {{ longDay(taking.localStart) }}, {{ clock(taking.localStart) }}, {{ lengthMin }} minutes<template v-if="taking.kind === 'series'">, and on from there<template v-if="taking.moves.length">, {{ taking.moves.length }} of the dates at another time</template></template>.
      <template v-if="taking.kind === 'hold'">It blocks tentatively for those asked{{ placeId ? ', and firmly for the place,' : '' }} until you settle it, let it go, or its end has come.</template>
      <template v-else>Nobody is told yet. You send the invitation afterwards.</template>
    </p>
    <v-text-field v-model="title" label="Title" autofocus maxlength="160" :error-messages="titleFault" />
    <v-text-field v-if="taking.kind === 'hold'" v-model="expiresOn" type="date" label="Held until the end of" hint="two weeks, unless you say otherwise" persistent-hint :error-messages="expiryFault" />
  </FormDialog>
</template>
