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

function placeOf(look: Look): Wish['place'] {
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
    place: placeOf(look),
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
