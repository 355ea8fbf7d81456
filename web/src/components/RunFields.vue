<script setup lang="ts">
import { computed, watch } from 'vue'
import { ProblemError } from '../api/client'
import { useRegions } from '../composables/useCalendars'
import { useSession } from '../composables/useSession'
import { withKnown } from '../choices'
import { regionName, regionNames } from '../regions'
import { follow, WEEKDAYS, type RunForm } from '../rule'
import DateField from './DateField.vue'
import TimeField from './TimeField.vue'
import LengthField from './LengthField.vue'
import WeekdayButtons from './WeekdayButtons.vue'
import ZoneField from './ZoneField.vue'
import MomentField from './MomentField.vue'

/** When a series meets. `problem` is what the server says against it. */
const { problem, tried } = defineProps<{ problem: Error | null; tried: boolean }>()
const form = defineModel<RunForm>({ required: true })

const REPEATS = [
  { title: 'Once', value: 'once' },
  { title: 'Daily', value: 'daily' },
  { title: 'Weekly, on chosen days', value: 'weekly' },
  { title: 'Monthly, on a date', value: 'month-day' },
  { title: 'Monthly, on a weekday such as the first Friday', value: 'month-weekday' },
  { title: 'Monthly, on a working day such as the last', value: 'month-workday' },
  { title: 'Yearly', value: 'yearly' },
  { title: 'On dates set by hand', value: 'by-hand' },
]
const repeatsHere = computed(() =>
  form.value.repeat === 'kept' ? [{ title: 'As it is', value: 'kept' }, ...REPEATS] : REPEATS,
)
const UNITS = {
  daily: 'days',
  weekly: 'weeks',
  'month-day': 'months',
  'month-weekday': 'months',
  'month-workday': 'months',
  yearly: 'years',
} as Record<string, string>
const NTHS = [
  [1, 'first'],
  [2, 'second'],
  [3, 'third'],
  [4, 'fourth'],
  [5, 'fifth'],
  [-1, 'last'],
  [-2, 'second last'],
].map(([value, title]) => ({ value, title }))
const MONTH_DAYS = [
  ...Array.from({ length: 31 }, (_, i) => ({ value: i + 1, title: `${i + 1}` })),
  { value: -1, title: 'the last day' },
]

const HOLIDAYS = [
  { title: 'Held on public holidays, too', value: 'meet' },
  { title: 'Not on public holidays: left out', value: 'leave_out' },
  { title: 'Not on public holidays: on the next working day', value: 'next_day' },
]
const regions = useRegions()
const { session } = useSession()
const holidays = computed({
  get: () => form.value.holidays ?? 'meet',
  set: treatment => {
    form.value.holidays = treatment
    form.value.region ??= session.value?.region ?? null
  },
})

let before = form.value.day
watch(
  () => [form.value, form.value.day] as const,
  ([run, day], [earlier]) => {
    if (!day) return
    if (run !== earlier) {
      before = day // another run altogether, whose days are its own
      return
    }
    follow(run, before, day)
    before = day
  },
)

const repeats = computed(() => form.value.repeat in UNITS)
const ends = computed(() => repeats.value || form.value.repeat === 'kept')
/** The sentence for a field: by its place in the run, or by the part of the rule it stands for. */
function at(name: string, ...parts: string[]) {
  if (!(problem instanceof ProblemError)) return undefined
  const found = problem.at(`/run/${name}`) ?? problem.at(`/${name}`)
  if (name !== 'rule') return found
  return found && parts.includes(problem.problem.part ?? '') ? found : undefined
}

const missing = (value: unknown, sentence: string) =>
  tried && (value === '' || value === null || value === undefined) ? sentence : undefined
</script>

<template>
  <div class="fields">
    <div class="line">
      <DateField
        v-model="form.day"
        label="First date"
        :time-zone="form.timeZone || undefined"
        class="day"
        :error-messages="missing(form.day, 'Give the first date.') ?? at('localStart')"
      />
      <TimeField
        v-model="form.time"
        label="Starts at"
        class="short"
        :error-messages="missing(form.time, 'Give a time.')"
      />
      <LengthField
        v-model="form.lengthMin"
        label="Length"
        class="short"
        :error-messages="missing(form.lengthMin, 'Give a length.') ?? at('lengthMin')"
      />
      <ZoneField v-model="form.timeZone" :error-messages="missing(form.timeZone, 'Choose a zone.') ?? at('timeZone')" />
    </div>
    <v-select v-model="form.repeat" :items="repeatsHere" label="How often" :error-messages="at('rule', 'FREQ', '')" />
    <WeekdayButtons v-if="form.repeat === 'weekly'" v-model="form.weekdays" :days="WEEKDAYS" label="On these days">
      <p v-if="form.weekdays.length === 0" class="alarm small" role="alert">Choose at least one day.</p>
      <p v-if="at('rule', 'BYDAY')" class="alarm small" role="alert">{{ at('rule', 'BYDAY') }}</p>
    </WeekdayButtons>
    <v-select
      v-if="form.repeat === 'month-day'"
      v-model="form.monthDay"
      :items="MONTH_DAYS"
      label="On day"
      :error-messages="at('rule', 'BYMONTHDAY')"
      hint="Months without that day are left out"
      persistent-hint
    />
    <div v-if="form.repeat === 'month-weekday'" class="line">
      <v-select v-model="form.nth" :items="NTHS" label="On the" />
      <v-select
        v-model="form.nthWeekday"
        :items="WEEKDAYS.map(day => ({ title: day.name, value: day.code }))"
        label="Weekday"
        :error-messages="at('rule', 'BYDAY')"
      />
    </div>
    <v-select
      v-if="form.repeat === 'month-workday'"
      v-model="form.nth"
      :items="NTHS.map(one => ({ ...one, title: `the ${one.title} working day` }))"
      label="On"
      hint="Monday to Friday"
      persistent-hint
      :error-messages="at('rule', 'BYSETPOS')"
    />
    <div v-if="ends" class="line">
      <v-text-field
        v-if="repeats"
        v-model.number="form.interval"
        type="number"
        min="1"
        label="Every"
        :suffix="UNITS[form.repeat]"
        :error-messages="missing(form.interval, 'Give a number.') ?? at('rule', 'INTERVAL')"
      />
      <v-select
        v-model="form.end"
        :items="[
          { title: 'Never ends', value: 'never' },
          { title: 'Ends after', value: 'count' },
          { title: 'Ends on a date', value: 'until' },
        ]"
        label="End"
      />
      <v-text-field
        v-if="form.end === 'count'"
        v-model.number="form.count"
        type="number"
        min="1"
        label="Number"
        suffix="meetings"
        :error-messages="missing(form.count, 'Give a number.') ?? at('rule', 'COUNT')"
      />
      <DateField
        v-if="form.end === 'until'"
        v-model="form.untilDay"
        label="Last possible date"
        :error-messages="missing(form.untilDay, 'Give a date.') ?? at('rule', 'UNTIL')"
      />
    </div>
    <div v-if="ends" class="line long">
      <v-select v-model="holidays" :items="HOLIDAYS" label="Public holidays" />
      <v-autocomplete
        v-if="holidays !== 'meet'"
        v-model="form.region"
        :items="
          withKnown(regionNames(regions), form.region ? { id: form.region, name: regionName(form.region) } : null)
        "
        label="Public holidays of"
        :error-messages="missing(form.region, 'Choose whose.') ?? at('holidays/region')"
      />
    </div>
    <div v-if="form.repeat === 'by-hand'" class="hand">
      <div v-for="(_, i) in form.dates" :key="i" class="line wide">
        <MomentField
          :model-value="form.dates[i]!"
          :label="`Date ${i + 2}`"
          :error-messages="at(`dates/${i}`)"
          @update:model-value="
            wall => {
              form.dates[i] = wall
            }
          "
        />
        <button type="button" class="quiet" :aria-label="`Remove: date ${i + 2}`" @click="form.dates.splice(i, 1)">
          Remove
        </button>
      </div>
      <button type="button" class="quiet" @click="form.dates.push(form.dates.at(-1) ?? `${form.day}T${form.time}`)">
        Add a date
      </button>
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 14px;
}
.line {
  display: flex;
  gap: 12px;
  align-items: flex-start;
}
.line > * {
  flex: 1;
}
.line > .short {
  flex: 0 0 104px;
}
.line > .quiet {
  flex: 0;
  white-space: nowrap;
  padding-top: 9px;
}
.hand {
  display: grid;
  gap: 10px;
  justify-items: stretch;
}
.hand > .quiet {
  justify-self: start;
}
@media (max-width: 700px) {
  .line {
    flex-wrap: wrap;
  }
  .line > * {
    flex: 1 1 140px;
  }
  .line.long > * {
    flex-basis: 220px;
  }
}
</style>
