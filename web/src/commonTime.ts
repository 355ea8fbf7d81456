import type { Schemas } from './api/client'
import type { Wish } from './composables/useCommonTime'
import { wallNow } from './time'

export const DAYS = [
  { code: 'mo', name: 'Monday' },
  { code: 'tu', name: 'Tuesday' },
  { code: 'we', name: 'Wednesday' },
  { code: 'th', name: 'Thursday' },
  { code: 'fr', name: 'Friday' },
  { code: 'sa', name: 'Saturday' },
  { code: 'su', name: 'Sunday' },
] as const
export type DayCode = (typeof DAYS)[number]['code']

/** What is looked for, as the page holds it. */
export interface Look {
  people: Schemas['Asked'][]
  groups: Schemas['AskedGroup'][]
  guests: Schemas['Guest'][]
  lengthMin: number | ''
  fromDay: string
  days: number
  stepMin: 5 | 10 | 15 | 30 | 60
  noticeMin: number
  gapMin: number
  stretchMin: number | null
  dayFrom: string
  dayTo: string
  weekdays: DayCode[]
  place: 'none' | 'fitting' | string
  seats: number | ''
  equipment: string[]
  beforeMin: number
  afterMin: number
  across: boolean
  run: {
    repeat: 'weekly' | 'month-weekday' | 'month-day'
    interval: number | ''
    count: number | ''
    nth: 1 | 2 | 3 | 4 | -1
  }
}

const addDays = (day: string, days: number) =>
  new Date(new Date(`${day}T00:00Z`).getTime() + days * 86_400_000).toISOString().slice(0, 10)

/** The Monday of next week. */
export function nextMonday(timeZone: string) {
  const today = wallNow(timeZone).slice(0, 10)
  return addDays(today, 7 - ((new Date(`${today}T00:00Z`).getUTCDay() + 6) % 7))
}

export const emptyLook = (timeZone: string): Look => ({
  people: [],
  groups: [],
  guests: [],
  lengthMin: 45,
  fromDay: nextMonday(timeZone),
  days: 5,
  stepMin: 15,
  noticeMin: 0,
  gapMin: 0,
  stretchMin: 0,
  dayFrom: '08:00',
  dayTo: '18:00',
  weekdays: ['mo', 'tu', 'we', 'th', 'fr'],
  place: 'none',
  seats: '',
  equipment: [],
  beforeMin: 0,
  afterMin: 0,
  across: false,
  run: { repeat: 'weekly', interval: 1, count: 12, nth: 1 },
})

/** Further weeks, or back: a week of five days steps by seven. */
export const stepped = (look: Look, by: number) => addDays(look.fromDay, by * Math.max(7, Math.ceil(look.days / 7) * 7))

function placeWish(look: Look): Wish['place'] {
  if (look.place === 'none') return null
  if (look.place === 'fitting')
    return { ...(look.seats === '' ? {} : { seats: look.seats }), equipment: look.equipment }
  return { placeId: look.place }
}

/** What to ask the server; null while nobody is chosen or a field is empty. */
export function wishOf(
  look: Look,
  timeZone: string,
  except: Pick<Wish, 'exceptSeriesId' | 'exceptMeetingId' | 'exceptHoldId'>,
): Wish | null {
  if (
    look.people.length + look.groups.length + look.guests.length === 0 ||
    look.lengthMin === '' ||
    !look.fromDay ||
    !look.dayFrom ||
    !look.dayTo
  )
    return null
  return {
    people: look.people,
    groups: look.groups,
    guests: look.guests,
    lengthMin: look.lengthMin,
    fromDay: look.fromDay,
    days: look.days,
    stepMin: look.stepMin,
    noticeMin: look.noticeMin,
    gapMin: look.gapMin,
    stretchMin: look.stretchMin,
    dayFrom: look.dayFrom,
    dayTo: look.dayTo,
    weekdays: look.weekdays,
    beforeMin: look.beforeMin,
    afterMin: look.afterMin,
    timeZone,
    place: placeWish(look),
    ...except,
  }
}

export function runWishOf(look: Look, wish: Wish | null): Schemas['RunTimeWish'] | null {
  if (!wish || !look.across || look.run.interval === '' || look.run.count === '') return null
  return {
    ...wish,
    run: { repeat: look.run.repeat, interval: look.run.interval, count: look.run.count, nth: look.run.nth },
  }
}

/** What would help is put into what is looked for. */
export function helped(look: Look, remedy: Schemas['Remedy']): Look {
  switch (remedy.kind) {
    case 'shorter':
      return { ...look, lengthMin: remedy.lengthMin ?? look.lengthMin }
    case 'later':
      return { ...look, fromDay: remedy.firstStart.slice(0, 10) }
    case 'stretch':
      return { ...look, stretchMin: remedy.stretchMin }
    case 'any_place':
      return { ...look, place: 'none' }
    case 'without': {
      const people = look.people.filter(one => one.personId !== remedy.personId)
      const guests = look.guests.filter(one => one.id !== remedy.personId)
      const named = people.length < look.people.length || guests.length < look.guests.length
      // Who is asked through a group stays asked, but need not come.
      return {
        ...look,
        guests,
        people: named ? people : [...people, { personId: remedy.personId!, role: 'optional' }],
      }
    }
  }
}

/** Whether a time lies among the days that are looked at. */
export const isWithin = (wall: string, look: Look) =>
  wall.slice(0, 10) >= look.fromDay && wall.slice(0, 10) < addDays(look.fromDay, look.days)

/** The starts of a free stretch. */
export function startsOf(stretch: NonNullable<Schemas['Fit']['stretch']>) {
  const [first, last] = [Date.parse(stretch.firstAt), Date.parse(stretch.lastAt)]
  const step = stretch.stepMin * 60_000
  return Array.from({ length: Math.round((last - first) / step) + 1 }, (_, i) =>
    new Date(first + i * step).toISOString(),
  )
}

/** What a search has come to, or what it still needs, in words. */
export function outcomeOf(
  look: Look,
  found: Schemas['CommonTime'] | undefined,
  isSearching: boolean,
  isAlone: boolean,
) {
  if (look.people.length + look.groups.length + look.guests.length === 0) return 'Choose who must come'
  if (look.lengthMin === '' || !(look.lengthMin >= 1 && look.lengthMin <= 720))
    return 'Give a length from 1 to 720 minutes'
  if (!look.fromDay) return 'Give the first day'
  if (!found) return isSearching ? 'Searching …' : ''
  if (isAlone) return 'Your own free times: add who must come'
  if (found.holding === 1) return '1 time suits all who must come'
  if (found.holding) return `${found.holding} times suit all who must come`
  if (!found.total) return 'No time fits these limits'
  // Nobody is known to be missing; but no calendar known, or only tentatively free, is not free.
  return found.fewestMissing === 0
    ? 'Nothing against these times, but not all who must come are sure'
    : 'No time suits all who must come'
}

/** What is taken of what was found: one time, a run, or turns between the hours of several. */
export interface Taking {
  kind: 'hold' | 'meeting' | 'series'
  startsAt: string
  localStart: string
  rule: string | null
  dates: string[]
  moves: { from: string; to: string }[]
}
const nothingElse = { startsAt: '', rule: null, dates: [], moves: [] }
export const takingOne = (kind: 'hold' | 'meeting', fit: Schemas['Fit']): Taking => ({
  ...nothingElse,
  kind,
  startsAt: fit.startsAt,
  localStart: fit.localStart,
})
export const takingRun = (run: Schemas['RunTime']): Taking => ({
  ...nothingElse,
  kind: 'series',
  startsAt: run.dates[0]!.startsAt,
  localStart: run.localStart,
  rule: run.rule,
  moves: run.dates.filter(date => date.repair).map(date => ({ from: date.localStart, to: date.repair!.localStart })),
})
export const takingTurns = (plan: Schemas['LoadPlan']): Taking => ({
  ...nothingElse,
  kind: 'series',
  localStart: plan.starts[0]!,
  dates: plan.starts.slice(1).map(wall => wall.slice(0, 16)),
})
