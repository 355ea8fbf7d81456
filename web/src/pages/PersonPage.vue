<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas } from '../api/client'
import AbsenceForm from '../components/AbsenceForm.vue'
import CalendarList from '../components/CalendarList.vue'
import PrivateLinks from '../components/PrivateLinks.vue'
import SignInsPanel from '../components/SignInsPanel.vue'
import RemindersForm from '../components/RemindersForm.vue'
import ProblemNote from '../components/ProblemNote.vue'
import WeekHours from '../components/WeekHours.vue'
import { usePersonPage, useRegions } from '../composables/useCalendars'
import { useNotice } from '../composables/useNotice'
import { useSession } from '../composables/useSession'
import { clock, list, mediumDay } from '../time'
import ZoneField from '../components/ZoneField.vue'
import DateField from '../components/DateField.vue'
import { useFaults } from '../composables/useFaults'
import { regionName, regionNames } from '../regions'
import { useTitle } from '../composables/useTitle'

const { id } = defineProps<{ id: string }>()
const { person: me } = useSession()
const isMe = computed(() => me.value?.id === id)
const { person, error, busy, feeds, setFeeds, keepHours, keepError, isKeeping } = usePersonPage(() => id, isMe)
const regions = useRegions()
useTitle(() => person.value?.name)

const unsure = ref(false)
const { say } = useNotice()

const form = ref<Schemas['HoursWish'] | null>(null)
watch(
  person,
  found => {
    if (found)
      form.value = JSON.parse(
        JSON.stringify({
          timeZone: found.timeZone,
          workingHours: found.workingHours,
          region: found.region,
          holidaysOff: found.holidaysOff,
          daysOff: found.daysOff,
        }),
      )
  },
  { immediate: true },
)
const changed = computed(
  () =>
    !!person.value &&
    !!form.value &&
    JSON.stringify(form.value) !==
      JSON.stringify({
        timeZone: person.value.timeZone,
        workingHours: person.value.workingHours,
        region: person.value.region,
        holidaysOff: person.value.holidaysOff,
        daysOff: person.value.daysOff,
      }),
)
const { at, rest } = useFaults(keepError, /^\/workingHours\//)
const KINDS = { busy: 'busy', tentative: 'tentative', unavailable: 'unavailable' }

async function save() {
  try {
    await keepHours({
      ...form.value!,
      daysOff: form.value!.daysOff.filter(day => day.on),
      version: person.value!.version,
    })
    say('The hours are saved.')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <template v-if="person && form">
      <p class="eyebrow">
        {{ person.zoneCity }} time<template v-if="person.groups.length">
          · {{ person.groups.map(group => group.name).join(', ') }}</template
        >
      </p>
      <div class="row spread">
        <h1>{{ person.name }}</h1>
        <v-btn v-if="person.id !== me?.id" variant="text" :to="{ path: '/now', query: { with: person.id } }"
          >Start one now</v-btn
        >
      </div>
      <p class="soft">
        {{ person.email
        }}<span v-if="!person.known" class="alarm strong">
          · no calendar known: others cannot tell when {{ isMe ? 'you are' : 'they are' }} free</span
        >
      </p>
      <div class="two page">
        <form class="sheet stack" novalidate @submit.prevent="save">
          <h2>Working hours</h2>
          <p class="small soft">
            {{
              person.usualHours
                ? 'These are the usual hours; none have been set yet.'
                : 'Others are only asked within them.'
            }}
            In {{ person.zoneCity }} time.
          </p>
          <fieldset :disabled="!person.mayKeep" class="plain stack">
            <ZoneField v-if="person.mayKeep" v-model="form.timeZone!" />
            <WeekHours
              v-model="form.workingHours"
              v-model:unsure="unsure"
              :at="range => at(`/workingHours/${range}`)"
              :readonly="!person.mayKeep"
            />
            <p v-if="!person.mayKeep && (person.region || person.daysOff.length)" class="small soft">
              <template v-if="person.region && person.holidaysOff"
                >Off on the public holidays of {{ regionName(person.region) }}. </template
              ><template v-if="person.daysOff.length"
                >Off on {{ list(person.daysOff.map(day => mediumDay(day.on))) }}.</template
              >
            </p>
            <div v-if="person.mayKeep" class="row fields">
              <v-autocomplete
                v-model="form.region"
                :items="regionNames(regions)"
                label="Public holidays of"
                clearable
              />
              <v-checkbox v-model="form.holidaysOff" label="are days off" />
            </div>
            <p
              v-if="form.region && form.holidaysOff && person.region === form.region && person.holidays.length"
              class="small soft"
            >
              Next:
              {{
                person.holidays
                  .slice(0, 3)
                  .map(day => `${day.name}, ${mediumDay(day.on)}`)
                  .join(' · ')
              }}
            </p>
            <h3 v-if="person.mayKeep">Days off</h3>
            <div v-for="(day, i) in person.mayKeep ? form.daysOff : []" :key="i" class="row fields">
              <DateField v-model="day.on" :label="`Day off ${i + 1}`" />
              <v-text-field v-model="day.word" label="Why (seen by you alone)" />
              <button
                type="button"
                class="quiet"
                :aria-label="`Remove: day off ${i + 1}`"
                @click="form.daysOff.splice(i, 1)"
              >
                Remove
              </button>
            </div>
            <button
              v-if="person.mayKeep"
              type="button"
              class="quiet"
              @click="form.daysOff.push({ on: '', word: null })"
            >
              Add a day off
            </button>
          </fieldset>
          <ProblemNote :error="rest" />
          <v-btn v-if="person.mayKeep" type="submit" :disabled="!changed || unsure" :loading="isKeeping"
            >Save the hours</v-btn
          >
        </form>
        <div class="stack">
          <AbsenceForm v-if="isMe" :id="id" />
          <CalendarList v-if="person.mayKeep" :owner="{ kind: 'person', id }" :enabled="person.mayKeep" />
          <RemindersForm v-if="person.reminders" :id="id" :reminders="person.reminders" />
          <section aria-labelledby="busy">
            <h2 id="busy">Taken in the next two weeks</h2>
            <p class="small soft">
              {{ isMe ? 'Others see the times, never what they are.' : 'When, but never with what.' }} Meetings here
              count as well.
            </p>
            <div class="spans" tabindex="0" role="region" aria-label="Taken times">
              <ul class="ruled small">
                <li v-for="span in busy" :key="span.startsAt + span.kind + span.title">
                  {{ mediumDay(span.localStart) }}, {{ clock(span.localStart) }}–{{ clock(span.localEnd) }}
                  <b>{{ KINDS[span.kind] }}</b> {{ span.title }}
                </li>
              </ul>
            </div>
            <p v-if="busy?.length === 0" class="soft">Nothing known.</p>
          </section>
          <SignInsPanel v-if="isMe" :time-zone="person.timeZone" />
          <PrivateLinks v-if="isMe || me?.admin" :id="id" :name="person.name" :own="isMe" />
          <section v-if="isMe && feeds" aria-labelledby="feeds">
            <h2 id="feeds">Private addresses</h2>
            <p class="small soft">
              For calendar programs outside. Whoever has an address can read it, so give it to nobody else.
            </p>
            <template v-if="feeds.addresses">
              <v-text-field
                :model-value="feeds.addresses.meetings"
                label="All my invitations"
                readonly
                @focus="($event.target as HTMLInputElement).select()"
              />
              <v-text-field
                :model-value="feeds.addresses.busy"
                label="When I am busy"
                readonly
                class="gap"
                @focus="($event.target as HTMLInputElement).select()"
              />
              <p class="row">
                <button type="button" class="quiet" @click="setFeeds(true)">Make new addresses</button
                ><button type="button" class="quiet" @click="setFeeds(false)">Close these addresses</button>
              </p>
            </template>
            <v-btn v-else variant="outlined" size="small" @click="setFeeds(true)">Make my private addresses</v-btn>
          </section>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  margin-top: 18px;
}
.plain {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
.fields > * {
  flex: 1 1 150px;
}
.fields > .quiet {
  flex: 0 0 auto;
}
.spans {
  max-height: 300px;
  overflow: auto;
}
.gap {
  margin-top: 10px;
}
</style>
