<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { useExtras } from '../composables/useExtras'
import DeputySelect from './DeputySelect.vue'
import AskOut from './AskOut.vue'
import AskToo from './AskToo.vue'
import { ANSWERS, GIVEN, seatWords } from '../answers'
import { useAnswerDeeds } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { readTime } from '../reading'
import { plain } from '../plain'

/** Who comes, before; who is here, during and after. */
const { sheet, me } = defineProps<{ sheet: Sheet; me: string }>()
const emit = defineEmits<{
  attend: [personId: string, state: Schemas['AttendanceState'] | null, when?: { at?: string; times?: string }]
  everybody: []
  mark: [Schemas['AttendanceOfAll']['people']]
  answer: [Schemas['AnswerWord']]
}>()

type Person = Sheet['people'][number]
const { remove } = useExtras(() => sheet.id)
const STATES: [Schemas['AttendanceState'] | '', string][] = [
  ['', 'not yet'],
  ['present', 'here'],
  ['on_call', 'on the call'],
  ['late', 'late'],
  ['left', 'left'],
  ['apologies', 'sent apologies'],
  ['absent', 'absent'],
]
const asked = computed(() => sheet.people.filter(person => person.role !== 'informed' || person.attendance))
const isHere = (person: Person) => ['present', 'on_call', 'late'].includes(person.attendance ?? '')
const before = computed(() => sheet.state === 'planned')
const canTake = computed(() => sheet.may.hold && ['in_session', 'closed'].includes(sheet.state))
const mine = computed(() => sheet.people.find(person => person.id === me))
/** Where people sign up there is no maybe, and one way to say it. */
const choices = computed<[Schemas['AnswerWord'], string][]>(() =>
  sheet.signUp
    ? [
        ['accepted', 'I sign up'],
        ['declined', 'I am away'],
      ]
    : [
        ['accepted', 'I come'],
        ['tentative', 'Maybe'],
        ['declined', 'I am away'],
      ],
)
/** Whoever runs the series enters what they were told. */
const WORDS = ['none', ...GIVEN] as const
const mayEnter = computed(() => before.value && sheet.may.nameDeputy)
const { answer: keepAnswer } = useAnswerDeeds(() => sheet.seriesId)
const { say, complain } = useNotice()
async function enter(person: Person, event: Event) {
  const field = event.target as HTMLSelectElement
  const word = field.value as Schemas['AnswerWord']
  try {
    await keepAnswer({ meetingId: sheet.id, personId: person.id, answer: word })
    say(`${person.name}: ${ANSWERS[word].they}, entered by you.`)
  } catch (fault) {
    field.value = person.answer
    complain(fault as Error)
  }
}
const quorumFails = computed(() => sheet.quorate === false && !before.value)

// With the focus on somebody's state, a key sets it; and one goes on to the next.
const KEYS: Record<string, Schemas['AttendanceState']> = {
  h: 'present',
  c: 'on_call',
  l: 'late',
  g: 'left',
  s: 'apologies',
  a: 'absent',
}
function press(event: KeyboardEvent, personId: string) {
  const state = event.ctrlKey || event.metaKey || event.altKey ? undefined : KEYS[event.key]
  if (!state) return
  event.preventDefault()
  emit('attend', personId, state)
  if (byName.value) {
    byName.value = false
    return finder.value?.focus()
  }
  const all = [...document.querySelectorAll<HTMLElement>('.person select')]
  all[all.indexOf(event.target as HTMLElement) + 1]?.focus()
}

// Somebody by the first letters of a name: as soon as it can be one person alone, the hand is on them; what is pressed
// there is what they are, and the hand comes back for the next one.
const finder = useTemplateRef<HTMLInputElement>('finder')
const typed = ref('')
const byName = ref(false)
const meant = computed(() => {
  const letters = plain(typed.value.trim())
  return letters.length < 2
    ? []
    : asked.value.filter(person =>
        plain(person.name)
          .split(/[\s-]+/)
          .some(part => part.startsWith(letters)),
      )
})
watch(meant, async ([one, ...others]) => {
  if (!one || others.length) return
  typed.value = ''
  await nextTick()
  byName.value = true
  document.querySelector<HTMLElement>(`[data-person="${one.id}"] select`)?.focus()
})
/** Whoever came and left, or left and came back, has several times: they are typed together. */
const severalTimes = (person: Person) => (person.attendanceTimes?.match(/\d:\d/g) ?? []).length > 1
const hasTimes = (person: Person) => ['late', 'left'].includes(person.attendance ?? '') || severalTimes(person)
const timesField = (person: Person) =>
  (severalTimes(person) ? person.attendanceTimes : person.attendanceAt?.slice(0, 5)) ?? ''
const timesVerb = (person: Person) =>
  severalTimes(person) ? 'was here' : person.attendance === 'late' ? 'came at' : 'left at'
const TIMES = /^[\d:\s–,;-]+$/
/** What was typed and is no time, by person. */
const unread = ref<Record<string, string>>({})
function setTime(person: Person, event: Event) {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  const at = readTime(text)
  delete unread.value[person.id]
  if (TIMES.test(text) && /[–-]/.test(text)) emit('attend', person.id, person.attendance ?? null, { times: text })
  else if (at && !severalTimes(person)) emit('attend', person.id, person.attendance ?? null, { at })
  else if (text) unread.value[person.id] = text
  else field.value = timesField(person)
}

function said(person: Person) {
  const [, word] = STATES.find(([state]) => state === (person.attendance ?? ''))!
  if (severalTimes(person)) return `${word}, ${person.attendanceWords ?? ''}`.replace(/, $/, '')
  const from = person.attendance === 'on_call' ? 'from ' : ''
  return person.attendanceAt ? `${word}, ${from}${person.attendanceAt}` : word
}
</script>

<template>
  <section data-here aria-labelledby="here">
    <h2 id="here" class="eyebrow" tabindex="-1">
      <template v-if="before && sheet.signUp"
        >Who comes ·
        {{ seatWords(sheet.signUpLimit, asked.filter(person => person.answer === 'accepted').length) }}</template
      >
      <template v-else-if="before"
        >Who comes · {{ asked.filter(person => person.answer === 'accepted').length }} of {{ asked.length }}</template
      >
      <template v-else>Here · {{ asked.filter(isHere).length }} of {{ asked.length }}</template
      ><template v-if="sheet.quorum">, quorum {{ sheet.quorum }}</template>
    </h2>
    <p v-if="quorumFails" class="alarm strong small">Below quorum: decisions are not binding yet.</p>
    <p v-if="canTake" class="find small">
      <input
        ref="finder"
        v-model="typed"
        class="in-line"
        aria-label="Somebody, by two letters of a name"
        aria-describedby="found"
        placeholder="Two letters of a name"
        autocomplete="off"
      />
      <span id="found" class="soft" role="status">
        <template v-if="meant.length > 1">{{ meant.map(one => one.name).join(' or ') }}?</template>
        <template v-else-if="typed.trim().length > 1 && !meant.length">Nobody here is called that.</template>
        <template v-else-if="byName"
          >then <kbd>h</kbd> here <kbd>l</kbd> late <kbd>g</kbd> gone <kbd>s</kbd> apologies</template
        >
      </span>
    </p>
    <ul>
      <li v-for="person in asked" :key="person.id" class="person" :data-person="person.id">
        <span
          class="dot"
          :class="{
            full: before ? person.answer === 'accepted' : isHere(person),
            away: before && person.answer === 'declined',
          }"
        />
        <span class="name"
          >{{ person.name }}<span v-if="person.insteadOf" class="soft small"> for {{ person.insteadOf }}</span
          ><span v-if="person.fromCall && !before" class="soft small" title="Change it, and what you say stays.">
            as the call has it</span
          ><button
            v-if="person.extra && before && sheet.may.hold"
            type="button"
            class="quiet small"
            :aria-label="`Remove: ${person.name}, asked to this meeting alone`"
            @click="remove(person.id)"
          >
            Remove
          </button></span
        >
        <select
          v-if="canTake"
          class="in-line"
          :value="person.attendance ?? ''"
          :aria-label="`${person.name} is`"
          title="h here, c on the call, l late, g gone, s sent apologies, a absent"
          @keydown="press($event, person.id)"
          @blur="byName = false"
          @change="
            emit(
              'attend',
              person.id,
              (($event.target as HTMLSelectElement).value || null) as Schemas['AttendanceState'] | null,
            )
          "
        >
          <option v-for="[value, label] in STATES" :key="value" :value="value">
            {{ value && value === person.attendance ? said(person) : label }}
          </option>
        </select>
        <input
          v-if="canTake && hasTimes(person)"
          class="in-line time"
          :class="{ several: severalTimes(person) }"
          :value="unread[person.id] ?? timesField(person)"
          :aria-label="`${person.name} ${timesVerb(person)}`"
          :aria-invalid="!!unread[person.id]"
          title="One time, or all of them: 10:20–12:53, 13:10–"
          @change="setTime(person, $event)"
        />
        <span v-if="unread[person.id]" class="alarm small unread" role="alert"
          >Give the times as 10:20–12:53, 13:10–.</span
        >
        <select
          v-if="mayEnter && person.id !== me"
          class="in-line entered"
          :class="{ alarm: person.answer === 'declined' }"
          :value="person.answer"
          :aria-label="`Answer of ${person.name}, as you were told`"
          :title="person.answerNote ?? undefined"
          @change="enter(person, $event)"
        >
          <option v-for="word in WORDS" :key="word" :value="word">{{ ANSWERS[word].they }}</option>
        </select>
        <span
          v-else-if="!canTake"
          class="soft small"
          :class="{ alarm: before && person.answer === 'declined' }"
          :title="person.answerNote ?? undefined"
          >{{ before ? ANSWERS[person.answer].they : said(person) }}</span
        >
      </li>
    </ul>
    <AskOut
      v-if="canTake && sheet.state === 'in_session'"
      :key="sheet.id"
      :sheet="sheet"
      @mark="people => emit('mark', people)"
    />
    <button
      v-if="canTake && asked.some(person => !person.attendance)"
      type="button"
      class="quiet"
      @click="emit('everybody')"
    >
      All others are here
    </button>
    <DeputySelect v-if="sheet.may.write && !['issued', 'called_off'].includes(sheet.state)" :sheet="sheet" />
    <AskToo v-if="sheet.may.hold && (before || sheet.state === 'in_session')" :sheet="sheet" />
    <div v-if="before && mine" class="answer" role="group" aria-label="Your answer">
      <button
        v-for="[answer, label] in choices"
        :key="answer"
        type="button"
        class="quiet"
        :class="{ on: mine.answer === answer }"
        :aria-pressed="mine.answer === answer"
        @click="emit('answer', answer)"
      >
        {{ label }}
      </button>
    </div>
  </section>
</template>

<style scoped>
ul {
  margin: 6px 0;
}
.find {
  display: grid;
  gap: 2px;
  margin-top: 4px;
}
.find input {
  color: var(--ink);
  min-height: 24px;
}
.person {
  display: grid;
  grid-template-columns: 12px 1fr auto;
  gap: 9px;
  align-items: center;
  padding: 2.5px 0;
}
.dot {
  width: 11px;
  height: 11px;
  border: 1.5px solid var(--soft);
  border-radius: 50%;
}
.dot.full {
  background: var(--fresh);
  border-color: var(--fresh);
}
.dot.away {
  border-color: var(--alarm);
  border-style: dashed;
}
.name {
  overflow-wrap: anywhere;
}
.time {
  grid-column: 2 / -1;
  justify-self: end;
  width: 64px;
  text-align: right;
  color: var(--ink);
  font-size: 0.8571rem;
}
.unread {
  grid-column: 1 / -1;
  justify-self: end;
}
.time.several {
  grid-column: 1 / -1;
  width: 100%;
}
select {
  font-size: 0.8571rem;
  text-align: right;
  cursor: pointer;
  max-width: 120px;
}
.answer {
  display: flex;
  gap: 10px;
  margin-top: 6px;
}
.on {
  text-decoration: underline;
  text-underline-offset: 4px;
  text-decoration-thickness: 2px;
}
</style>
