<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../api/client'
import { emptyAsk, ruleOfAsk, type AskForm } from '../asking'
import AskSettings from '../components/AskSettings.vue'
import CandidatePicker from '../components/CandidatePicker.vue'
import LengthField from '../components/LengthField.vue'
import NamesEntry from '../components/NamesEntry.vue'
import PeoplePicker from '../components/PeoplePicker.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { nextMonday } from '../commonTime'
import { useDraft } from '../composables/useDraft'
import { useNotice } from '../composables/useNotice'
import { usePeople } from '../composables/usePeople'
import { useSeries } from '../composables/useSeries'
import { useSession } from '../composables/useSession'
import { useSheet } from '../composables/useSheet'
import { useAsking } from '../composables/useTimePolls'
import { count, instantOf, mediumDay } from '../time'
import { useFaults } from '../composables/useFaults'

/** Times are put to people: what for, whom, which times, and what it becomes. Nobody is told before the last press. */
const { people } = usePeople()
const { person: me } = useSession()
const { say } = useNotice()
const router = useRouter()
const { query } = useRoute()
const from = { meeting: String(query.meeting ?? ''), series: String(query.series ?? '') }
const { draft: form, forget } = useDraft<AskForm>(`ask${from.meeting}${from.series}`, () =>
  emptyAsk(nextMonday(me.value!.timeZone)),
)
const meetingId = from.meeting || form.value.meetingId
const { sheet } = meetingId ? useSheet(meetingId) : { sheet: ref(undefined) }
const seriesId = computed(() => sheet.value?.seriesId ?? (from.series || (form.value.seriesId ?? '')))
const { series } = useSeries(seriesId)
const timeZone = computed(() => series.value?.timeZone ?? me.value!.timeZone)

// From a series, or a meeting of one: its people and its length.
watch(
  [series, sheet],
  ([found, meeting]) => {
    if (!found || form.value.title || (meetingId && !meeting)) return
    const asked = found.members.filter(one => one.personId !== found.keeper.id)
    form.value = {
      ...form.value,
      title: found.title,
      lengthMin: meeting?.lengthMin ?? found.lengthMin,
      people: asked.filter(one => !one.guest).map(({ personId, role }) => ({ personId, role })),
      guests: asked
        .filter(one => one.guest && one.email)
        .map(one => ({ id: one.personId, name: one.name, email: one.email!, role: one.role })),
      seriesId: found.id,
      meetingId: meetingId || null,
      outcome: meetingId ? 'move' : 'within',
    }
  },
  { immediate: true },
)
const aim = computed(() =>
  sheet.value ? `${sheet.value.seriesTitle}, ${mediumDay(sheet.value.localStart)}` : (series.value?.title ?? ''),
)

const { ask, askError, isAsking } = useAsking()
const { at, rest: elsewhere } = useFaults(
  askError,
  /^\/(title|closesAt|rule|meetingId|seriesId|call\/kind|placeId|candidates\/.+)$/,
)
const tried = ref(false)
const titleFault = computed(() =>
  tried.value && !form.value.title.trim() ? 'Say what the times are for.' : at('/title'),
)
const whom = computed(
  () => form.value.people.length + form.value.groups.length + form.value.guests.length + form.value.names.length,
)
const faults = computed(() => [
  ...(whom.value ? [] : ['Choose who is asked, or turn on the shared link afterwards.']),
  ...(form.value.times.length ? [] : ['Choose at least one time.']),
])

const wish = computed(() =>
  form.value.lengthMin === ''
    ? null
    : {
        people: [
          ...new Map([
            [me.value!.id, { personId: me.value!.id, role: 'required' as const }],
            ...form.value.people.map(one => [one.personId, one] as const),
          ]).values(),
        ],
        groups: form.value.groups,
        lengthMin: form.value.lengthMin,
        fromDay: form.value.fromDay,
        timeZone: timeZone.value,
        days: 7,
        dayFrom: '07:00',
        dayTo: '20:00',
        ...(meetingId ? { exceptMeetingId: meetingId } : {}),
      },
)

/** "7 mails are on their way, 1 person has no address." */
function askedWords(people: Schemas['TimePoll']['people']) {
  const mails = people.filter(one => one.asked && one.reachable).length
  const without = people.filter(one => !one.reachable).length
  const said = `${count(mails, 'mail')} ${mails === 1 ? 'is' : 'are'} on ${mails === 1 ? 'its' : 'their'} way`
  return `${said}${without ? `, ${count(without, 'person')} ${without === 1 ? 'has' : 'have'} no address` : ''}.`
}

async function send() {
  tried.value = true
  if (!form.value.title.trim() || !form.value.times.length || form.value.lengthMin === '') return
  const { id, title, words, lengthMin, people: asked, groups, guests, names, times } = form.value
  const { shows, tells, outcome, placeId, place, callKind, holdsTimes, closes } = form.value
  try {
    const poll = await ask({
      id,
      title,
      words: words || null,
      lengthMin,
      timeZone: timeZone.value,
      candidates: times,
      people: asked,
      groups,
      guests,
      names,
      ...(closes ? { closesAt: instantOf(closes, timeZone.value) } : {}),
      shows,
      tells,
      outcome,
      rule: ruleOfAsk(form.value),
      seriesId: form.value.seriesId,
      meetingId: form.value.meetingId,
      placeId,
      place: place || null,
      callKind,
      holdsTimes,
    })
    say(whom.value ? askedWords(poll.people) : 'The times are kept.')
    // The page goes first: an emptied form would be found wanting while it is still shown.
    await router.push(`/asking/${poll.id}`)
    forget()
  } catch {
    /* shown at the fields */
  }
}
</script>

<template>
  <div class="desk">
    <p class="eyebrow"><router-link to="/asking">Times asked for</router-link></p>
    <h1>Ask for times</h1>
    <form class="two page" novalidate @submit.prevent="send">
      <div class="stack">
        <section class="sheet stack" aria-labelledby="what">
          <h2 id="what">What for</h2>
          <div class="what">
            <v-text-field v-model="form.title" label="Title" autofocus :error-messages="titleFault" />
            <LengthField v-model="form.lengthMin" label="Length" />
          </div>
          <v-textarea v-model="form.words" label="A few words with it (optional)" rows="1" />
        </section>
        <section class="sheet" aria-labelledby="which">
          <h2 id="which" class="gap">Which times</h2>
          <CandidatePicker
            v-model="form.times"
            v-model:from-day="form.fromDay"
            :wish="wish"
            :length-min="Number(form.lengthMin) || 60"
            :time-zone="timeZone"
            :fault="index => at(`/candidates/${index}/startsAt`)"
            @length="minutes => (form.lengthMin = minutes)"
          />
        </section>
      </div>
      <div class="stack">
        <section class="sheet stack" aria-labelledby="whom">
          <h2 id="whom">Whom</h2>
          <PeoplePicker
            v-model="form.people"
            v-model:groups="form.groups"
            v-model:guests="form.guests"
            :people="people ?? []"
            :fixed="[]"
          />
          <NamesEntry v-model="form.names" />
        </section>
        <section class="sheet stack" aria-labelledby="how">
          <h2 id="how">How</h2>
          <AskSettings v-model="form" :error="askError" :aim="aim" :time-zone="timeZone" />
        </section>
        <section class="sheet stack send" aria-label="Ask">
          <ProblemNote :error="elsewhere" />
          <ul v-if="tried && faults.length" role="alert">
            <li v-for="fault in faults" :key="fault" class="alarm small">{{ fault }}</li>
          </ul>
          <div class="row">
            <v-btn type="submit" size="large" :loading="isAsking">Ask</v-btn>
            <v-btn variant="text" @click="forget()">Start anew</v-btn>
          </div>
          <p class="small soft">
            {{
              form.guests.length + form.people.length + form.groups.length
                ? 'Whoever is asked gets a mail with these times at once, and a link of their own.'
                : 'Nobody is mailed.'
            }}
          </p>
        </section>
      </div>
    </form>
  </div>
</template>

<style scoped>
.page {
  margin-top: 14px;
}
.what {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px;
  gap: 12px;
}
.gap {
  margin-bottom: 12px;
}
.send {
  border-left: 4px solid var(--gold);
}
</style>
