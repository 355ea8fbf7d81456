<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ProblemError, type Schemas } from '../api/client'
import AnswerRow from '../components/AnswerRow.vue'
import CallWords from '../components/CallWords.vue'
import LinkOffer from '../components/LinkOffer.vue'
import LinkSubstitute from '../components/LinkSubstitute.vue'
import AnswerSeveral from '../components/AnswerSeveral.vue'
import GuestSelf from '../components/GuestSelf.vue'
import HouseName from '../components/HouseName.vue'
import InvitedTo from '../components/InvitedTo.vue'
import NotYou from '../components/NotYou.vue'
import MissedMeetings from '../components/MissedMeetings.vue'
import MarkdownText from '../components/MarkdownText.vue'
import { useAnswerLink, type LinkPath } from '../composables/useAnswerLink'
import { useZone } from '../public/useZone'
import ZoneSwitch from '../public/ZoneSwitch.vue'
import { count, mediumDay } from '../time'
import { ANSWERS, GIVEN, standing } from '../answers'
import { useTitle } from '../composables/useTitle'

/** For the invited, without an account. Opening it changes nothing: mail scanners follow links, so a person presses. */
const path = defineProps<LinkPath>()
const { link, error, answer, isAnswering, answerError, readAgain, isReading, mailFeed, isFeeding } = useAnswerLink(
  () => path,
)
useTitle(() => link.value?.title, true)
const route = useRoute()
const files = computed(() => `/api/answer-links/${path.id}/${path.personId}/${path.token}`)
const isGone = computed(() => error.value instanceof ProblemError && error.value.status === 404)
const isPassing = (fault: Error) => fault instanceof ProblemError && fault.passing

type Word = Schemas['AnswerWord']
const said = (word: Word) => ANSWERS[word].you
const fromMail = GIVEN.find(word => word === route.query.answer)
/** The date the link of a calendar entry leads to. */
const dateAsked = computed(() => String(route.query.date ?? ''))
const note = ref('')
const done = ref('')
const near = computed(() => (link.value ? [link.value.timeZone] : []))
const { zone, first, all, place, wall } = useZone(near, () => link.value?.timeZone)
watch(
  () => !!link.value,
  async there => {
    if (!there || !dateAsked.value) return
    await nextTick()
    document.getElementById(`date-${dateAsked.value}`)?.scrollIntoView({ block: 'center' })
  },
  { immediate: true },
)
// A booked time has one page: there it is moved and given back.
watch(
  () => link.value?.bookingPath,
  booking => booking && location.replace(booking),
  { immediate: true },
)
/** Said by a region that stands there already, and said again when it is the same. */
async function tell(words: string) {
  done.value = ''
  await nextTick()
  done.value = words
}
const coming = computed(() => link.value?.meetings.filter(meeting => meeting.state === 'planned') ?? [])
/** What is not answered yet; a single answer is never changed along with others. */
const unanswered = computed(() =>
  coming.value.filter(
    meeting => meeting.answersAsked && meeting.answer === 'none' && !meeting.wait && !meeting.substitute,
  ),
)
const insteadOf = computed(() =>
  link.value?.meetings.length && link.value.meetings.every(meeting => meeting.insteadOf)
    ? link.value.meetings[0]!.insteadOf
    : null,
)
const asked = computed(() => coming.value.some(meeting => meeting.answersAsked))
const passable = computed(() => coming.value.filter(meeting => meeting.passOn))
/** @param which one meeting, or several; null: all that are not answered yet, and later ones */
async function send(word: Word, which: string | string[] | null, words: string | null) {
  const meetingId = typeof which === 'string' ? which : null
  try {
    await answer({ answer: word, note: words, ...(Array.isArray(which) ? { meetingIds: which } : { meetingId }) })
    const waits =
      word === 'accepted'
        ? coming.value.find(meeting => meeting.wait && (!meetingId || meeting.id === meetingId))?.wait
        : null
    const day = coming.value.find(meeting => meeting.id === meetingId)?.localStart
    const what = day
      ? mediumDay(day)
      : which
        ? `to ${count(which.length, 'meeting')}`
        : `to all that were open${link.value?.goesOn ? ', and later ones' : ''}`
    note.value = ''
    const full = `All seats are taken: you are number ${waits} of those who wait`
    tell(
      waits
        ? `Saved. ${full}, and hear of it when one becomes free.`
        : `Saved: ${said(word)}, ${what}. You can change it here until then.`,
    )
  } catch {
    /* shown below */
  }
}
async function sendFeed() {
  try {
    await mailFeed()
    tell('The address is on its way to your mail. Add it to your calendar program.')
  } catch (fault) {
    tell((fault as Error).message)
  }
}
</script>

<template>
  <div class="answer">
    <HouseName />
    <div v-if="isGone" class="sheet" role="alert">
      <h1>This link is no longer valid</h1>
      <p>
        Perhaps you have been taken off the meeting, have newer links, or part of this one was lost. Ask whoever invited
        you.
      </p>
    </div>
    <div v-else-if="error && !link" class="sheet stack" role="alert">
      <h1>No connection just now</h1>
      <p>The meeting could not be read. Your link is fine; try again in a moment.</p>
      <p><v-btn :loading="isReading" @click="readAgain()">Try again</v-btn></p>
    </div>
    <p v-else-if="!link" class="soft" role="status">The meeting is being read …</p>
    <article v-else class="sheet stack">
      <header>
        <p class="eyebrow">
          {{
            insteadOf ? `${insteadOf} asks you to come instead, ${link.name}` : `${link.keeper} asks you, ${link.name}`
          }}
        </p>
        <h1>{{ link.title }}</h1>
        <p class="soft">
          {{ [link.sentence, link.location, insteadOf ? `kept by ${link.keeper}` : null].filter(Boolean).join(' · ') }}
        </p>
        <p v-if="link.call" class="soft">Call: <CallWords :call="link.call" whole /></p>
        <p v-if="link.purpose" class="soft">{{ link.purpose }}</p>
      </header>
      <p class="strong" :class="{ done }" role="status">{{ done }}</p>
      <p v-if="answerError" class="alarm" role="alert">
        {{
          isPassing(answerError)
            ? 'Not sent yet: there is no connection just now. Press it again in a moment.'
            : answerError.message
        }}
      </p>
      <p v-if="fromMail && unanswered.length && link.role !== 'informed'" class="small">
        You chose “{{ ANSWERS[fromMail].i }}” in the mail. Press it for each meeting it is true of.
      </p>
      <AnswerSeveral
        v-if="link.openTotal > 1 && link.role !== 'informed'"
        v-model:note="note"
        :shown="unanswered.map(meeting => meeting.id)"
        :total="link.openTotal"
        :goes-on="link.goesOn"
        :suggested="fromMail"
        :busy="isAnswering"
        @answer="send"
      />
      <p v-if="coming.length && !asked" class="soft">No answer is needed.</p>
      <p v-else-if="link.role === 'informed'" class="soft">
        This is for your information; nobody is waiting for an answer. You get the minutes when they are issued. You can
        say that you will not be there.
      </p>
      <section aria-labelledby="dates">
        <h2 id="dates">
          {{
            link.total > link.meetings.length
              ? `The next ${link.meetings.length} of ${count(link.total, 'meeting')} to come`
              : `${count(link.meetings.length, 'meeting')} to come`
          }}, in {{ place }} time
        </h2>
        <ZoneSwitch v-model="zone" :first="first" :all="all" />
        <ul class="ruled">
          <AnswerRow
            v-for="meeting in link.meetings"
            :id="`date-${meeting.id}`"
            :key="meeting.id"
            :meeting="{ ...meeting, localStart: wall(meeting.startsAt), localEnd: wall(meeting.endsAt) }"
            :zone="zone"
            :offered="meeting.offeredAt ? wall(meeting.offeredAt) : null"
            :class="{ asked: meeting.id === dateAsked }"
            :standing="standing(meeting, { informed: link.role === 'informed', allInstead: !!insteadOf })"
            :asked="link.role !== 'informed'"
            :informed="link.role === 'informed'"
            :suggested="fromMail"
            :busy="isAnswering"
            :papers="`${files}/papers`"
            @answer="(word, words) => send(word, meeting.id, words)"
          />
        </ul>
      </section>
      <section v-if="link.agenda.length" aria-labelledby="agenda">
        <h2 id="agenda">Agenda of the next</h2>
        <ol class="ruled">
          <li v-for="topic in link.agenda" :key="topic.number">
            <p class="row spread">
              <span
                >{{ topic.number }} {{ topic.title
                }}<span v-if="topic.presenter" class="soft small"> · {{ topic.presenter }}</span></span
              ><span class="soft small">{{ topic.inWriting ? 'in writing' : `${topic.lengthMin} min` }}</span>
            </p>
            <MarkdownText v-if="topic.text" :text="topic.text" class="small" />
          </li>
        </ol>
      </section>
      <section v-if="link.missed.length" aria-labelledby="missed">
        <h2 id="missed">Since you were last here</h2>
        <MissedMeetings :meetings="link.missed" />
      </section>
      <section v-if="link.minutes.length" aria-labelledby="minutes">
        <h2 id="minutes">Minutes</h2>
        <ul>
          <li v-for="one in link.minutes" :key="one.meetingId">
            <a :href="`${files}/minutes/${one.meetingId}`" download>{{ mediumDay(one.localStart) }} (PDF)</a>
          </li>
        </ul>
      </section>
      <template v-if="link.role !== 'informed'">
        <LinkOffer v-if="coming.length" :path="path" :meetings="coming" :time-zone="link.timeZone" />
        <LinkSubstitute v-if="passable.length" :path="path" :meetings="passable" />
      </template>
      <GuestSelf v-if="link.guest" :path="path" :name="link.name" :time-zone="link.timeZone" />
      <InvitedTo v-if="link.guest" :path="path" :here="path.id" />
      <section>
        <button type="button" class="quiet" :disabled="isFeeding" @click="sendFeed()">
          Mail me a calendar address for all my invitations
        </button>
      </section>
      <NotYou :name="link.name" :from="link.keeper" />
    </article>
  </div>
</template>

<style scoped>
.answer {
  max-width: 620px;
  margin: 0 auto;
  padding: 18px 14px 48px;
}
.done {
  padding: 10px 14px;
  background: var(--pine-pale);
  border-left: 4px solid var(--pine);
}
.asked {
  padding-left: 12px;
  border-left: 4px solid var(--pine);
}
.answer :deep(.choices) {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(90px, 1fr));
  gap: 8px;
}
.answer :deep(.choices button) {
  padding: 12px 6px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}
.answer :deep(.choices button.suggested) {
  border: 2px solid var(--pine);
}
.answer :deep(.choices button.on) {
  background: var(--pine);
  color: rgb(var(--v-theme-on-primary));
  border-color: var(--pine);
}
.answer :deep(.unfolded) {
  margin-top: 10px;
}
.answer :deep(section > .quiet) {
  margin-left: -4px;
}
</style>
