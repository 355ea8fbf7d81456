<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { api, dataOf, type Schemas, type Series } from '../api/client'
import { useRunChange, useRunCheck } from '../composables/useRunChange'
import { useNotice } from '../composables/useNotice'
import { useMeetings, useRunPreview } from '../composables/useSeries'
import { emptyRun, formOf, wishOf } from '../rule'
import { clock, count, list, mediumDay } from '../time'
import FormDialog from './FormDialog.vue'
import RunCheck from './RunCheck.vue'
import RunFields from './RunFields.vue'

/**
 * Another rule or time, for all meetings to come or from one on; or calling those off. What was prepared goes along.
 */
const {
  series,
  beginWith = 'change',
  repeating = false,
} = defineProps<{ series: Series; beginWith?: 'change' | 'off'; repeating?: boolean }>()
const open = defineModel<boolean>({ required: true })
const { change, changeError, isChanging, callOff, callOffError, isCallingOff, reset } = useRunChange(() => series.id)
const { meetings } = useMeetings(() => series.id, false)
const { say, complain } = useNotice()

const deed = ref<'change' | 'off'>('change')
const from = ref('')
const reason = ref('')
const tried = ref(false)
const run = ref(emptyRun(series.timeZone))
const form = computed({
  get: () => ({ deed: deed.value, from: from.value, reason: reason.value, run: run.value }),
  set: kept => {
    deed.value = kept.deed
    from.value = kept.from
    reason.value = kept.reason
    nextTick(() => {
      run.value = kept.run
    })
  },
})
const planned = computed(() => (meetings.value ?? []).filter(meeting => meeting.state === 'planned'))
/** Those that are to change: all to come, or from one on. */
const affected = computed(() =>
  planned.value.slice(
    Math.max(
      planned.value.findIndex(meeting => meeting.id === from.value),
      0,
    ),
  ),
)
/** The form begins with what holds, from the first date that is to change. */
function fill() {
  const held = formOf(
    series,
    affected.value.map(meeting => meeting.localStart),
  )
  // A single meeting that is to become a series begins with a rule.
  run.value = repeating && held.repeat === 'once' ? { ...held, repeat: 'weekly' } : held
}
watch(from, fill)
watch(
  () => meetings.value !== undefined,
  known => {
    if (known && open.value && !touched.value) fill()
  },
)
const touched = computed(
  () =>
    JSON.stringify(run.value) !==
      JSON.stringify(
        formOf(
          series,
          affected.value.map(meeting => meeting.localStart),
        ),
      ) && planned.value.length > 0,
)
const wish = computed(() => wishOf(run.value))
const { preview, error: runError } = useRunPreview(
  computed(() => (deed.value === 'change' && open.value ? wish.value : null)),
)
const { check } = useRunCheck(
  () => series.id,
  computed(() => (deed.value === 'change' && open.value && !runError.value ? wish.value : null)),
)
const choices = computed(() => [
  { title: 'all meetings to come', value: '' },
  ...planned.value.map(meeting => ({
    title: `${mediumDay(meeting.localStart)}, ${clock(meeting.localStart)}, and all later`,
    value: meeting.id,
  })),
])

watch(
  open,
  shown => {
    if (!shown) return
    reset()
    tried.value = false
    from.value = ''
    deed.value = beginWith
    reason.value = ''
    fill()
  },
  { immediate: true },
)

/** How many dates move, come or go, where both runs end. */
const difference = computed(() => {
  if (!preview.value?.count || planned.value.length === 0) return ''
  const more = preview.value.count - affected.value.length
  return more === 0 ? '' : more > 0 ? `${count(more, 'date')} more` : `${count(-more, 'date')} fewer`
})

/** What held before, on the same meetings. */
async function takeBack(before: { wish: Schemas['RunWish']; from: string }) {
  try {
    const { version } = await dataOf(api.GET('/series/{id}', { params: { path: { id: series.id } } }))
    await change({ version, run: before.wish, fromMeetingId: before.from || null })
    say('The times are as they were.')
  } catch (fault) {
    complain(fault as Error)
  }
}

async function save() {
  tried.value = true
  try {
    if (deed.value === 'off') {
      await callOff({ reason: reason.value, fromMeetingId: from.value || null })
      say('They are called off. Nobody is told yet.')
    } else {
      if (!wish.value) return
      const before = {
        wish: wishOf(
          formOf(
            series,
            affected.value.map(meeting => meeting.localStart),
          ),
        )!,
        from: from.value,
        number: affected.value.length,
      }
      const told = await change({ version: series.version, run: wish.value, fromMeetingId: from.value || null })
      const movedOn = (
        [
          ['topic', told.topicsMovedOn],
          ['paper', told.papersMovedOn],
          ['line', told.linesMovedOn],
        ] as const
      )
        .filter(([, number]) => number > 0)
        .map(([noun, number]) => count(number, noun))
      const went = movedOn.length ? `, and ${list(movedOn)} went to the last sheet` : ''
      const without = told.withoutDate ? `; ${count(told.withoutDate, 'meeting')} had no date left${went}` : ''
      const undo = told.withoutDate || told.moved < before.number ? undefined : () => takeBack(before)
      if (before.number === 0) say(`${count(told.added, 'meeting')} planned. Nobody is told yet.`)
      else say(`${count(told.moved, 'meeting')} moved with all that was prepared${without}. Nobody is told yet.`, undo)
    }
    open.value = false
  } catch {
    /* shown in the form */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`run-${series.id}`"
    :title="beginWith === 'off' ? 'Call off later meetings' : 'Change the times'"
    :verb="deed === 'off' ? 'Call them off' : 'Change the times'"
    :error="deed === 'off' ? callOffError : changeError"
    :busy="isChanging || isCallingOff"
    :width="720"
    @submit="save"
  >
    <v-select v-model="from" :items="choices" label="This is for" />
    <v-radio-group v-model="deed" inline hide-details aria-label="What happens to them"
      ><v-radio label="another time or rule" value="change" /><v-radio label="call them off" value="off"
    /></v-radio-group>
    <template v-if="deed === 'change'">
      <RunFields v-model="run" :problem="runError" :tried="tried" />
      <div role="status">
        <dl v-if="preview" class="then">
          <dt class="soft">Now</dt>
          <dd>{{ series.sentence }}</dd>
          <dt class="soft">Then</dt>
          <dd class="strong">
            {{ preview.sentence }}<template v-if="difference">, {{ difference }}</template>
          </dd>
        </dl>
      </div>
      <RunCheck v-if="check && touched" :check="check" />
    </template>
    <v-text-field
      v-else
      v-model="reason"
      label="Why"
      :error-messages="tried && !reason.trim() ? 'Say why, so that people understand.' : undefined"
    />
    <p class="small soft">
      Sheets, files and places go along, the first to the first new date and so on. Answers are asked anew where the
      time changes. Past meetings stay as they are.
    </p>
  </FormDialog>
</template>

<style scoped>
.then {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0;
}
.then dd {
  margin: 0;
}
</style>
