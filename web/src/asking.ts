import { v7 as newKey } from 'uuid'
import type { Schemas } from './api/client'
import { takeDraft, useDraft } from './composables/useDraft'

/** Who is asked for times, which times, and how, as the form holds it. */
export interface AskForm {
  id: string
  title: string
  words: string
  lengthMin: number | ''
  people: Schemas['MemberWish'][]
  groups: Schemas['AskedGroup'][]
  guests: Schemas['SeriesGuest'][]
  names: { name: string; role: Schemas['MemberRole'] }[]
  times: Schemas['Candidate'][]
  closes: string
  shows: Schemas['PollShows']
  tells: Schemas['PollTells']
  outcome: Schemas['PollOutcome']
  repeat: keyof typeof REPEATS
  count: number | ''
  seriesId: string | null
  meetingId: string | null
  placeId: string | null
  place: string
  beforeMin: number
  afterMin: number
  callKind: 'none' | 'standing' | 'fresh'
  holdsTimes: boolean
  fromDay: string
}

export const emptyAsk = (fromDay: string): AskForm => ({
  id: newKey(),
  title: '',
  words: '',
  lengthMin: 60,
  people: [],
  groups: [],
  guests: [],
  names: [],
  times: [],
  closes: '',
  shows: 'tally',
  tells: 'all',
  outcome: 'meeting',
  repeat: 'week',
  count: 10,
  seriesId: null,
  meetingId: null,
  placeId: null,
  place: '',
  beforeMin: 0,
  afterMin: 0,
  callKind: 'none',
  holdsTimes: true,
  fromDay,
})

/** What the form of somebody who comes from elsewhere begins with; what lay there before gives way. */
export function beginAsking(start: Partial<AskForm>, fromDay: string) {
  takeDraft('ask')
  const { draft } = useDraft<AskForm>('ask', () => emptyAsk(fromDay))
  draft.value = { ...emptyAsk(fromDay), ...start }
}

/** How a series repeats: without days of the week, since the time that is chosen says which. */
export const REPEATS = {
  day: { title: 'every day', rule: 'FREQ=DAILY' },
  week: { title: 'every week', rule: 'FREQ=WEEKLY' },
  twoWeeks: { title: 'every second week', rule: 'FREQ=WEEKLY;INTERVAL=2' },
  fourWeeks: { title: 'every fourth week', rule: 'FREQ=WEEKLY;INTERVAL=4' },
  month: { title: 'every month, on that date', rule: 'FREQ=MONTHLY' },
} as const
export const ruleOfAsk = (form: Pick<AskForm, 'outcome' | 'repeat' | 'count'>) =>
  form.outcome === 'series' ? `${REPEATS[form.repeat].rule}${form.count ? `;COUNT=${form.count}` : ''}` : null

/** How a rule repeats, as the form has it. */
export function repeatOf(rule: string | null): Pick<AskForm, 'repeat' | 'count'> {
  const how = (rule ?? '').replace(/;COUNT=\d+/, '')
  const [repeat] = Object.entries(REPEATS).find(([, one]) => one.rule === how) ?? ['week']
  return { repeat: repeat as AskForm['repeat'], count: Number(/COUNT=(\d+)/.exec(rule ?? '')?.[1]) || '' }
}

export const SHOWS = [
  { value: 'all', title: 'Everybody sees who has said what' },
  { value: 'tally', title: 'Everybody sees how many, not who' },
  { value: 'nobody', title: 'Nobody sees the others’ answers' },
]
export const TELLS = [
  { value: 'each', title: 'with each answer' },
  { value: 'all', title: 'when all have answered' },
  { value: 'end', title: 'at the end' },
]
export const CALLS = [
  { value: 'none', title: 'No call' },
  { value: 'fresh', title: 'A call made here' },
]
export const ANSWER_WORDS = { suits: 'suits', possible: 'possible', cannot: 'cannot', none: 'not answered' } as const

/** "MH" of "Marit Hauge" */
export const initialsOf = (name: string) =>
  name
    .split(' ')
    .map(word => word[0])
    .filter((_, i, all) => i === 0 || i === all.length - 1)
    .join('')

/** What calendars say of a time, in a few words. */
export function calendarWords(people: { name: string; state: Schemas['PersonState']['state'] }[]) {
  if (!people.length) return ''
  const of = (...states: string[]) => people.filter(one => states.includes(one.state)).map(one => one.name)
  const parts = [
    of('busy').length ? `busy: ${of('busy').join(', ')}` : '',
    of('outside').length ? `outside their hours: ${of('outside').join(', ')}` : '',
    of('tentative').length ? `perhaps busy: ${of('tentative').join(', ')}` : '',
    of('unknown').length ? `no calendar known: ${of('unknown').join(', ')}` : '',
  ].filter(Boolean)
  return parts.length ? parts.join(' · ') : 'all are free, as far as their calendars tell'
}
