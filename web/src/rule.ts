import type { Schemas } from './api/client'
import { wallNow } from './time'

export const WEEKDAYS = [
  { code: 'MO', name: 'Monday' },
  { code: 'TU', name: 'Tuesday' },
  { code: 'WE', name: 'Wednesday' },
  { code: 'TH', name: 'Thursday' },
  { code: 'FR', name: 'Friday' },
  { code: 'SA', name: 'Saturday' },
  { code: 'SU', name: 'Sunday' },
]

/** A run as the form holds it: what people choose, not yet a rule. Numbers may be empty while they are typed. */
export interface RunForm {
  day: string
  time: string
  lengthMin: number | ''
  timeZone: string
  repeat: 'once' | 'daily' | 'weekly' | 'month-day' | 'month-weekday' | 'month-workday' | 'yearly' | 'by-hand' | 'kept'
  interval: number | ''
  weekdays: string[]
  monthDay: number
  nth: number
  nthWeekday: string
  end: 'never' | 'count' | 'until'
  count: number | ''
  untilDay: string
  dates: string[]
  /** What becomes of public holidays, and of which region; a draft from before may have neither. */
  holidays?: 'meet' | Schemas['OnHolidays']['treatment']
  region?: string | null
  /** For a rule that none of the choices can say: it stays as it is, without its end. */
  kept: string
}

export const weekdayOf = (day: string) => WEEKDAYS[(new Date(`${day}T00:00Z`).getUTCDay() + 6) % 7]!.code

/** Which of its kind in the month, such as the second Tuesday. */
export const nthOf = (day: string) => Math.ceil(Number(day.slice(8)) / 7)
/** Whether the same weekday comes again in its month. */
const isLast = (day: string) =>
  new Date(new Date(`${day}T00:00Z`).getTime() + 7 * 86_400_000).toISOString().slice(5, 7) !== day.slice(5, 7)
const WORKDAYS = 'MO,TU,WE,TH,FR'

/** Days that were those of the first date follow it when it moves: weekday, day of the month, which of the month. */
export function follow(run: RunForm, before: string, day: string) {
  if (run.weekdays.join() === weekdayOf(before)) run.weekdays = [weekdayOf(day)]
  if (run.nthWeekday === weekdayOf(before)) {
    run.nthWeekday = weekdayOf(day)
    if (run.nth === nthOf(before)) run.nth = nthOf(day)
    else if (run.nth === -1 && isLast(before) && !isLast(day)) run.nth = nthOf(day)
  }
  if (run.monthDay === Number(before.slice(8))) run.monthDay = Number(day.slice(8))
}

export function emptyRun(timeZone: string): RunForm {
  const day = new Date(new Date(`${wallNow(timeZone).slice(0, 10)}T00:00Z`).getTime() + 86_400_000 * 7)
    .toISOString()
    .slice(0, 10)
  return {
    day,
    time: '10:00',
    lengthMin: 45,
    timeZone,
    repeat: 'weekly',
    interval: 1,
    weekdays: [weekdayOf(day)],
    monthDay: Number(day.slice(8)),
    nth: nthOf(day),
    nthWeekday: weekdayOf(day),
    holidays: 'meet',
    region: null,
    end: 'never',
    count: 10,
    untilDay: '',
    dates: [],
    kept: '',
  }
}

/**
 * The rule in the words of RFC 5545; null for a single meeting or dates by hand. Whether it makes sense, the server
 * says.
 */
export function ruleOf(form: RunForm): string | null {
  if (form.repeat === 'once' || form.repeat === 'by-hand') return null
  const end = { never: '', count: `;COUNT=${form.count}`, until: `;UNTIL=${form.untilDay.replaceAll('-', '')}T235959` }[
    form.end
  ]
  if (form.repeat === 'kept') return `${form.kept}${end}`
  const parts: Record<Exclude<RunForm['repeat'], 'once' | 'by-hand' | 'kept'>, string> = {
    daily: 'FREQ=DAILY',
    weekly: `FREQ=WEEKLY;BYDAY=${form.weekdays.join(',')}`,
    'month-day': `FREQ=MONTHLY;BYMONTHDAY=${form.monthDay}`,
    'month-weekday': `FREQ=MONTHLY;BYDAY=${form.nth}${form.nthWeekday}`,
    'month-workday': `FREQ=MONTHLY;BYDAY=${WORKDAYS};BYSETPOS=${form.nth}`,
    yearly: `FREQ=YEARLY;BYMONTH=${Number(form.day.slice(5, 7))};BYMONTHDAY=${Number(form.day.slice(8))}`,
  }
  return `${parts[form.repeat]};INTERVAL=${form.interval}${end}`
}

/** What holds of a run, as the form holds it: its rule, begun at the first of the dates that are to change. */
export function formOf(
  run: {
    rule: string | null
    timeZone: string
    lengthMin: number
    holidays?: Schemas['OnHolidays'] | null
  },
  coming: string[],
): RunForm {
  const first = coming[0] ?? `${emptyRun(run.timeZone).day}T10:00`
  const form = {
    ...emptyRun(run.timeZone),
    lengthMin: run.lengthMin,
    day: first.slice(0, 10),
    time: first.slice(11, 16),
    holidays: run.holidays?.treatment ?? ('meet' as const),
    region: run.holidays?.region ?? null,
    nth: nthOf(first.slice(0, 10)),
  }
  form.weekdays = [weekdayOf(form.day)]
  form.nthWeekday = weekdayOf(form.day)
  form.monthDay = Number(form.day.slice(8))
  if (run.rule === null)
    return {
      ...form,
      repeat: coming.length > 1 ? 'by-hand' : 'once',
      dates: coming.slice(1).map(date => date.slice(0, 16)),
    }
  return { ...form, ...choicesOf(run.rule), ...endOf(run.rule, run.timeZone, coming.length) }
}

const partsOf = (rule: string) =>
  Object.fromEntries(rule.split(';').map(part => part.split('='))) as Record<string, string | undefined>

function choicesOf(rule: string): Partial<RunForm> {
  const by = partsOf(rule)
  const interval = Number(by.INTERVAL ?? 1)
  const kept = {
    repeat: 'kept' as const,
    kept: rule
      .split(';')
      .filter(part => !/^(COUNT|UNTIL)=/.test(part))
      .join(';'),
  }
  const only = (...names: string[]) =>
    Object.keys(by)
      .filter(name => /^BY/.test(name))
      .every(name => names.includes(name))
  const { FREQ } = by
  const nth = /^(-?\d)([A-Z]{2})$/.exec(by.BYDAY ?? '')
  if (FREQ === 'DAILY' && only()) return { repeat: 'daily', interval }
  if (FREQ === 'WEEKLY' && only('BYDAY') && !/\d/.test(by.BYDAY ?? ''))
    return { repeat: 'weekly', interval, ...(by.BYDAY ? { weekdays: by.BYDAY.split(',') } : {}) }
  if (FREQ === 'MONTHLY' && only('BYMONTHDAY') && /^-?\d+$/.test(by.BYMONTHDAY ?? '1'))
    return { repeat: 'month-day', interval, ...(by.BYMONTHDAY ? { monthDay: Number(by.BYMONTHDAY) } : {}) }
  if (FREQ === 'MONTHLY' && only('BYDAY') && nth)
    return { repeat: 'month-weekday', interval, nth: Number(nth[1]), nthWeekday: nth[2] }
  if (FREQ === 'MONTHLY' && only('BYDAY', 'BYSETPOS') && by.BYDAY === WORKDAYS && /^-?\d$/.test(by.BYSETPOS ?? ''))
    return { repeat: 'month-workday', interval, nth: Number(by.BYSETPOS) }
  if (FREQ === 'YEARLY' && only('BYMONTH', 'BYMONTHDAY') && !`${by.BYMONTH}${by.BYMONTHDAY}`.includes(','))
    return { repeat: 'yearly', interval }
  return kept
}

/** A number of meetings is of those that are left; a last date is one on the series' wall. */
function endOf(rule: string, timeZone: string, left: number): Partial<RunForm> {
  const { COUNT, UNTIL } = partsOf(rule)
  if (COUNT) return { end: 'count', count: left }
  if (!UNTIL) return { end: 'never' }
  const at = /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)(Z)?)?$/.exec(UNTIL)
  if (!at) return { end: 'never' }
  const day = `${at[1]}-${at[2]}-${at[3]}`
  return {
    end: 'until',
    untilDay: at[7] ? wallNow(timeZone, new Date(`${day}T${at[4]}:${at[5]}:${at[6]}Z`)).slice(0, 10) : day,
  }
}

/** What the form asks of the server; null while something it cannot do without is still empty. */
export function wishOf(form: RunForm): Schemas['RunWish'] | null {
  if (!form.day || !form.time || form.lengthMin === '' || !form.timeZone) return null
  if (form.repeat === 'weekly' && form.weekdays.length === 0) return null
  if (
    ruleOf(form) !== null &&
    (form.interval === '' || (form.end === 'count' && form.count === '') || (form.end === 'until' && !form.untilDay))
  )
    return null
  return {
    localStart: `${form.day}T${form.time}`,
    timeZone: form.timeZone,
    lengthMin: form.lengthMin,
    rule: ruleOf(form),
    dates: form.repeat === 'by-hand' ? form.dates.filter(Boolean) : [],
    ...(ruleOf(form) !== null && form.region && (form.holidays ?? 'meet') !== 'meet'
      ? { holidays: { region: form.region, treatment: form.holidays as Schemas['OnHolidays']['treatment'] } }
      : {}),
  }
}
