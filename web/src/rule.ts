import type { Schemas } from './api/client'
import { wallNow } from './time'

export const WEEKDAYS = [
  { code: 'MO', name: 'Monday' }, { code: 'TU', name: 'Tuesday' }, { code: 'WE', name: 'Wednesday' },
  { code: 'TH', name: 'Thursday' }, { code: 'FR', name: 'Friday' }, { code: 'SA', name: 'Saturday' }, { code: 'SU', name: 'Sunday' },
]

/** A run as the form holds it: what people choose, not yet a rule. Numbers may be empty while they are typed. */
export interface RunForm {
  day: string
  time: string
  lengthMin: number | ''
  timeZone: string
  repeat: 'once' | 'daily' | 'weekly' | 'month-day' | 'month-weekday' | 'yearly' | 'by-hand'
  interval: number | ''
  weekdays: string[]
  monthDay: number
  nth: number
  nthWeekday: string
  end: 'never' | 'count' | 'until'
  count: number | ''
  untilDay: string
  dates: string[]
}

export const weekdayOf = (day: string) => WEEKDAYS[(new Date(`${day}T00:00Z`).getUTCDay() + 6) % 7]!.code

export function emptyRun(timeZone: string): RunForm {
  const day = new Date(new Date(`${wallNow(timeZone).slice(0, 10)}T00:00Z`).getTime() + 86_400_000 * 7).toISOString().slice(0, 10)
  return {
    day, time: '10:00', lengthMin: 45, timeZone, repeat: 'weekly', interval: 1, weekdays: [weekdayOf(day)], monthDay: Number(day.slice(8)),
    nth: 1, nthWeekday: weekdayOf(day), end: 'never', count: 10, untilDay: '', dates: [],
  }
}

/** The rule in the words of RFC 5545; null for a single meeting or dates by hand. Whether it makes sense, the server says. */
export function ruleOf(form: RunForm): string | null {
  if (form.repeat === 'once' || form.repeat === 'by-hand') return null
  const parts: Record<Exclude<RunForm['repeat'], 'once' | 'by-hand'>, string> = {
    'daily': 'FREQ=DAILY',
    'weekly': `FREQ=WEEKLY;BYDAY=${form.weekdays.join(',')}`,
    'month-day': `FREQ=MONTHLY;BYMONTHDAY=${form.monthDay}`,
    'month-weekday': `FREQ=MONTHLY;BYDAY=${form.nth}${form.nthWeekday}`,
    'yearly': `FREQ=YEARLY;BYMONTH=${Number(form.day.slice(5, 7))};BYMONTHDAY=${Number(form.day.slice(8))}`,
  }
  const end = { never: '', count: `;COUNT=${form.count}`, until: `;UNTIL=${form.untilDay.replaceAll('-', '')}T235959` }[form.end]
  return `${parts[form.repeat]};INTERVAL=${form.interval}${end}`
}

/** What the form asks of the server; null while something it cannot do without is still empty. */
export function wishOf(form: RunForm): Schemas['RunWish'] | null {
  if (!form.day || !form.time || form.lengthMin === '' || !form.timeZone) return null
  if (form.repeat === 'weekly' && form.weekdays.length === 0) return null
  if (ruleOf(form) !== null && (form.interval === '' || (form.end === 'count' && form.count === '') || (form.end === 'until' && !form.untilDay))) return null
  return {
    localStart: `${form.day}T${form.time}`, timeZone: form.timeZone, lengthMin: form.lengthMin, rule: ruleOf(form),
    dates: form.repeat === 'by-hand' ? form.dates.filter(Boolean) : [],
  }
}
