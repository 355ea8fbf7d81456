import type { Schemas } from './api/client'

export type OpenHoursForm = Omit<Schemas['NewOpenHours'], 'id' | 'hosts' | 'words' | 'afterWords' | 'place'> & {
  words: string
  afterWords: string
  place: string
  beforeMin: number
  afterMin: number
  placeId: string | null
  hosts: { personId: string; week: Schemas['WeekHours'] | null }[]
  questions: Schemas['VisitorQuestion'][]
}

export const emptyOpenHours = (timeZone: string, personId: string): OpenHoursForm => ({
  title: '',
  words: '',
  afterWords: '',
  timeZone,
  mode: 'together',
  lengths: [30],
  stepMin: 30,
  beforeMin: 0,
  afterMin: 0,
  noticeMin: 1440,
  daysAhead: 60,
  fromOn: null,
  untilOn: null,
  mostPerDay: null,
  mostPerWeek: null,
  mostPerVisitor: 3,
  questions: [],
  onlyFrom: [],
  neverFrom: [],
  alwaysIds: [],
  frames: [],
  placeId: null,
  place: '',
  callKind: 'none',
  likeId: null,
  listed: false,
  tentativeFree: false,
  proof: false,
  paused: false,
  hosts: [{ personId, week: null }],
})

/** What stands there, as the form holds it. */
export function formOfOpenHours(open: Schemas['OpenHours']): OpenHoursForm {
  const { words, afterWords, place, hosts, beforeMin, afterMin, placeId, questions, ...rest } = open
  const known = Object.keys(emptyOpenHours('', ''))
  const plain = Object.fromEntries(Object.entries(rest).filter(([name]) => known.includes(name)))
  return {
    ...(plain as unknown as OpenHoursForm),
    words: words ?? '',
    afterWords: afterWords ?? '',
    place: place ?? '',
    beforeMin: beforeMin ?? 0,
    afterMin: afterMin ?? 0,
    placeId: placeId ?? null,
    questions: questions ?? [],
    hosts: hosts.map(({ personId, week }) => ({ personId, week: week ?? null })),
  }
}

export const MODES = [
  { value: 'together', title: 'All hosts together' },
  { value: 'turns', title: 'Any one of them, in turn' },
  { value: 'chosen', title: 'Any one of them, the visitor chooses' },
]
export const STEPS = [5, 10, 15, 20, 30, 60].map(value => ({ value, title: `every ${value} minutes` }))
export const NOTICES = [
  { value: 0, title: 'none' },
  { value: 60, title: 'an hour' },
  { value: 240, title: 'four hours' },
  { value: 1440, title: 'a day' },
  { value: 2880, title: 'two days' },
  { value: 10080, title: 'a week' },
]
export const GAPS = [0, 5, 10, 15, 30, 45, 60].map(value => ({ value, title: value ? `${value} min` : 'none' }))
export const QUESTION_KINDS = [
  { value: 'short', title: 'a few words' },
  { value: 'long', title: 'more words' },
  { value: 'choice', title: 'one of several' },
  { value: 'tick', title: 'a tick' },
]
