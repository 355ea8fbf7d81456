<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import { type Schemas } from '../api/client'
import type { Taking } from '../commonTime'
import { useHolds } from '../composables/useCommonTime'
import { useNotice } from '../composables/useNotice'
import { useCreateSeries } from '../composables/useSeries'
import { longDay, clock } from '../time'
import BookedThen from './BookedThen.vue'
import FormDialog from './FormDialog.vue'
import DateField from './DateField.vue'
import { useFaults } from '../composables/useFaults'

/** What is taken: a hold, a single meeting, or a series with its repairs. */
const { taking, people, lengthMin, timeZone, placeId, beforeMin, afterMin } = defineProps<{
  taking: Taking
  people: Schemas['Asked'][]
  lengthMin: number
  timeZone: string
  placeId: string | null
  beforeMin: number
  afterMin: number
}>()
const open = defineModel<boolean>({ required: true })

const { keep, keepError, isKeeping } = useHolds()
const { create, error: createError, isCreating } = useCreateSeries()
const router = useRouter()
const { say } = useNotice()
const form = ref({ title: '', expiresOn: '' })
const tried = ref(false)
let key = newKey()
watch(open, shown => {
  if (shown) {
    key = newKey()
    tried.value = false
    form.value = { title: '', expiresOn: '' }
  }
})

const WORDS = {
  hold: ['Hold this time', 'Hold it'],
  meeting: ['Make a meeting', 'Make the meeting'],
  series: ['Make a series', 'Make the series'],
} as const
const error = computed(() => (taking.kind === 'hold' ? keepError.value : createError.value))
const { at, rest } = useFaults(error, /^\/(title|expiresOn)$/)
const titleFault = computed(() => (tried.value && !form.value.title.trim() ? 'Give it a title.' : at('/title')))

async function take() {
  tried.value = true
  if (!form.value.title.trim()) return
  const place = placeId ? { placeId, beforeMin, afterMin } : {}
  try {
    if (taking.kind === 'hold') {
      await keep({
        id: key,
        title: form.value.title,
        startsAt: taking.startsAt,
        lengthMin,
        timeZone,
        people,
        ...place,
        expiresOn: form.value.expiresOn || null,
      })
      say('The time is held. It stands on your Desk until you settle it.')
    } else {
      const series = await create({
        id: key,
        title: form.value.title,
        run: {
          localStart: taking.localStart.slice(0, 16),
          timeZone,
          lengthMin,
          rule: taking.rule,
          dates: taking.dates,
        },
        members: people,
        moves: taking.moves,
        ...place,
      })
      open.value = false
      await nextTick()
      router.push({ path: `/series/${series.id}`, query: { show: 'sheets' } })
    }
    open.value = false
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`take-${taking.kind}`"
    :title="WORDS[taking.kind][0]"
    :verb="WORDS[taking.kind][1]"
    :error="titleFault ? null : rest"
    :busy="isKeeping || isCreating"
    @submit="take"
  >
    <p class="soft">
      {{ longDay(taking.localStart) }}, {{ clock(taking.localStart) }}, {{ lengthMin }} minutes<template
        v-if="taking.kind === 'series'"
        >, and on from there<template v-if="taking.moves.length"
          >, {{ taking.moves.length }} of the dates at another time</template
        ></template
      >.
      <template v-if="taking.kind === 'hold'"
        >It blocks tentatively for those asked{{ placeId ? ', and firmly for the place,' : '' }} until you settle it,
        release it, or the hold runs out.</template
      >
      <template v-else>Nobody is told yet. You send the invitation afterwards.</template>
    </p>
    <BookedThen
      v-if="taking.startsAt"
      :people="people"
      :at="taking.startsAt"
      :length-min="lengthMin"
      :time-zone="timeZone"
      :enabled="open"
    />
    <v-text-field v-model="form.title" label="Title" autofocus :error-messages="titleFault" />
    <DateField
      v-if="taking.kind === 'hold'"
      v-model="form.expiresOn"
      label="Held until the end of"
      hint="two weeks, unless you say otherwise"
      :error-messages="at('/expiresOn')"
    />
  </FormDialog>
</template>
