<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useAnswerDeeds, useAnswers } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { columnDay, list, mediumDay, since } from '../time'
import { ANSWERS, GIVEN, seatWords } from '../answers'
import MeetingOptions from './MeetingOptions.vue'
import OfferedTime from './OfferedTime.vue'
import ProblemNote from './ProblemNote.vue'
import SilentList from './SilentList.vue'

/** Who comes: a row a person, a column a meeting, with what the keeper should know and can do. */
const { seriesId } = defineProps<{ seriesId: string }>()
const { table, error } = useAnswers(() => seriesId)
const { answer, dismiss, setOptions, optionsError, isSetting } = useAnswerDeeds(() => seriesId)
const { say, complain } = useNotice()

const SIGNS = { accepted: '✓', tentative: '~', declined: '✗', none: '·' }
const WAYS = { mail: 'by mail', link: 'by link', here: 'here', keeper: 'entered by' } as Record<string, string>
const CHOICES = [...GIVEN, 'none' as const].map(value => ({ title: ANSWERS[value].they, value }))
const TALLIES = [
  ['tentative', 'May come'],
  ['declined', 'Away'],
  ['none', 'Silent'],
] as const
const editing = ref<{ personId: string; name: string; meetingId: string } | null>(null)

const optionsOf = (meeting: AnswerMeeting) =>
  Object.values(meeting.ownOptions).some(value => value !== null) ? 'its own' : 'as the series'
const optioning = ref<AnswerMeeting | null>(null)
async function keepOptions(own: Schemas['MeetingOptions']) {
  try {
    await setOptions({ meetingId: optioning.value!.id, ...own })
    optioning.value = null
  } catch {
    /* shown in the dialog */
  }
}
const tell = (cell: Schemas['AnswerCell']) =>
  [
    cell.wait ? `waits, number ${cell.wait}` : ANSWERS[cell.answer].they,
    cell.substitute ? `${cell.substitute.name} comes instead, ${ANSWERS[cell.substitute.answer].they}` : '',
    cell.busySince ? 'busy elsewhere since' : '',
    cell.note ? `“${cell.note}”` : '',
    cell.way
      ? [WAYS[cell.way], cell.enteredBy, cell.answeredAt && since(cell.answeredAt)].filter(Boolean).join(' ')
      : '',
  ]
    .filter(Boolean)
    .join(', ')
async function enter(word: Schemas['AnswerWord']) {
  if (!editing.value) return
  const { personId, meetingId, name } = editing.value
  editing.value = null
  try {
    await answer({ personId, meetingId, answer: word })
    say(`${name}: ${ANSWERS[word].they}, entered by you.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
/** Who comes instead of whom, and who waits for a seat. */
const besides = computed(() =>
  (table.value?.meetings ?? []).flatMap((meeting, i) => {
    const day = mediumDay(meeting.localStart)
    const cells = table.value!.people.map(({ name, answers }) => ({ name, ...answers[i] }))
    const waiting = meeting.signUp?.waiting ?? []
    return [
      ...cells.flatMap(({ name, substitute }) =>
        substitute ? [`${day}: ${substitute.name} comes instead of ${name}, ${ANSWERS[substitute.answer].they}`] : [],
      ),
      ...cells.flatMap(({ name, note }) => (note ? [`${day}, ${name}: “${note}”`] : [])),
      ...(waiting.length ? [`${day}: ${list(waiting)} ${waiting.length === 1 ? 'waits' : 'wait'} for a seat`] : []),
    ]
  }),
)
const signUpWords = ({ taken, limit, waiting }: NonNullable<Schemas['AnswerMeeting']['signUp']>) =>
  seatWords(limit, taken, waiting.length)
/** The next ten, and more on demand. */
const TEN = 10
const columns = ref(TEN)
const shown = computed(() => (table.value?.meetings ?? []).slice(0, columns.value))
const label = (name: string, localStart: string, cell: Schemas['AnswerCell']) =>
  `${name}, ${mediumDay(localStart)}: ${tell(cell)}. Enter an answer`
type AnswerMeeting = Schemas['AnswerMeeting']
</script>

<template>
  <div class="stack">
    <ProblemNote :error="error" />
    <template v-if="table">
      <OfferedTime v-for="offered in table.offeredTimes" :key="offered.id" :offered="offered" :series-id="seriesId" />
      <section v-for="mail in table.aside" :key="mail.id" class="aside small">
        <span class="alarm strong">Mail kept aside:</span> {{ mail.remark }}
        <button
          type="button"
          class="quiet small"
          :aria-label="`Dismiss the mail of ${mail.sender}`"
          @click="dismiss(mail.id)"
        >
          Dismiss
        </button>
        <blockquote v-if="mail.words" class="words">{{ mail.words }}</blockquote>
      </section>
      <div class="scroll" tabindex="0" role="region" aria-label="Answers">
        <table>
          <thead>
            <tr>
              <th scope="col">Who</th>
              <th scope="col">Recently</th>
              <th v-for="meeting in shown" :key="meeting.id" scope="col" class="date">
                <router-link :to="`/meetings/${meeting.id}`">{{ columnDay(meeting.localStart) }}</router-link>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="person in table.people" :key="person.id">
              <th scope="row">
                {{ person.name }}<span v-if="person.guest" class="soft small"> guest</span
                ><br v-if="person.failing" /><span v-if="person.failing" class="small alarm"
                  >mail fails: {{ person.failing }}</span
                >
              </th>
              <td class="small" :class="person.oftenAway ? 'alarm' : 'soft'">
                {{ person.awayLately ? `away ${person.awayLately} of the last ${person.awayOf}` : ''
                }}{{ person.oftenAway ? ', often' : '' }}
              </td>
              <td v-for="(cell, i) in person.answers.slice(0, columns)" :key="cell.meetingId" class="cell">
                <template v-if="person.role === 'informed'"><span class="soft small">–</span></template>
                <span v-else-if="table.meetings[i]!.state === 'called_off'" class="soft small">off</span>
                <button
                  v-else
                  type="button"
                  :class="cell.answer"
                  :title="tell(cell)"
                  :aria-label="label(person.name, table.meetings[i]!.localStart, cell)"
                  @click="editing = { personId: person.id, name: person.name, meetingId: cell.meetingId }"
                >
                  {{ cell.wait ? `w${cell.wait}` : SIGNS[cell.answer] }}<sup v-if="cell.substitute">→</sup
                  ><sup v-if="cell.busySince" class="alarm">!</sup><sup v-if="cell.note">”</sup>
                </button>
              </td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <th scope="row">Comes</th>
              <td />
              <td v-for="meeting in shown" :key="meeting.id" class="cell small">
                {{
                  meeting.state === 'called_off'
                    ? ''
                    : meeting.signUp
                      ? signUpWords(meeting.signUp)
                      : meeting.tally.accepted
                }}
              </td>
            </tr>
            <tr v-for="[word, name] in TALLIES" :key="word" class="under">
              <th scope="row" class="soft small">{{ name }}</th>
              <td />
              <td v-for="meeting in shown" :key="meeting.id" class="cell small soft">
                {{ meeting.state === 'called_off' ? '' : meeting.tally[word] || '' }}
              </td>
            </tr>
            <tr class="under">
              <th scope="row" class="soft small">Options</th>
              <td />
              <td v-for="meeting in shown" :key="meeting.id" class="cell small">
                <button
                  v-if="meeting.state !== 'called_off'"
                  type="button"
                  class="quiet small option"
                  :aria-label="`${optionsOf(meeting)}: options of ${mediumDay(meeting.localStart)}`"
                  @click="optioning = meeting"
                >
                  {{ optionsOf(meeting) }}
                </button>
              </td>
            </tr>
          </tfoot>
        </table>
      </div>
      <p v-if="table.meetings.length > columns">
        <button type="button" class="quiet small" @click="columns += TEN">
          {{ Math.min(TEN, table.meetings.length - columns) }} more dates
        </button>
      </p>
      <p class="small soft">
        ✓ comes · ~ may come · ✗ is away · · not answered · ” with a note · ! accepted, but busy elsewhere since · →
        somebody comes instead · w1 first of those who wait. Press one to enter what you were told.
      </p>
      <ul v-if="besides.length" class="ruled small">
        <li v-for="words in besides" :key="words">{{ words }}</li>
      </ul>
      <SilentList :meetings="table.meetings" :series-id="seriesId" />
      <MeetingOptions
        :meeting="optioning"
        :error="optionsError"
        :busy="isSetting"
        @keep="keepOptions"
        @close="optioning = null"
      />
      <v-dialog
        :model-value="editing !== null"
        max-width="360"
        aria-label="Enter an answer"
        @update:model-value="editing = null"
      >
        <v-card v-if="editing" class="enter"
          ><p class="strong">{{ editing.name }}, as you were told</p>
          <div class="stack">
            <v-btn
              v-for="choice in CHOICES"
              :key="choice.value"
              variant="outlined"
              block
              @click="enter(choice.value as Schemas['AnswerWord'])"
              >{{ choice.title }}</v-btn
            >
          </div></v-card
        >
      </v-dialog>
    </template>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.scroll th:first-child {
  position: sticky;
  left: 0;
  background: var(--sheet);
  z-index: 1;
}
.words {
  margin: 4px 0 0;
  padding-left: 12px;
  border-left: 2px solid var(--line);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
@media (max-width: 600px) {
  th[scope='row'] {
    max-width: 120px;
    white-space: normal;
  }
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 600;
  padding: 4px 14px 4px 0;
  white-space: nowrap;
}
.date {
  text-align: center;
  font-size: 0.8571rem;
}
tr {
  border-top: 1px solid var(--line);
}
.cell {
  text-align: center;
}
.cell button {
  min-width: 30px;
  min-height: 28px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: var(--soft);
  font:
    700 1.0714rem 'Figtree Variable',
    sans-serif;
  cursor: pointer;
}
.cell button.option {
  min-width: 0;
  font:
    600 0.8571rem 'Figtree Variable',
    sans-serif;
  color: var(--pine);
}
.cell .accepted {
  color: var(--fresh-ink);
}
.cell .tentative {
  color: var(--carried-ink);
}
.cell .declined {
  color: var(--alarm-ink);
}
.enter {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}
</style>
