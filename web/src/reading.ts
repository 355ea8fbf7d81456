/**
 * Dates, times and lengths as people type them. Only for fields; what a line of the minutes says is read on the server.
 */

import { dayOfWords } from './dayWords'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat']
/** So far ahead the next date is looked for that fits what was typed: a 29 February may be eight years off. */
const FURTHEST_DAYS = 8 * 366

const iso = (at: Date) => at.toISOString().slice(0, 10)
const utc = (day: string) => new Date(`${day}T00:00Z`)

export const addDays = (day: string, days: number) => iso(new Date(utc(day).getTime() + days * 86_400_000))

interface Wanted {
  weekday?: number
  day?: number
  month?: number
  year?: number
}

/**
 * "fri 14", "14.12.", "14 dec 27", "tomorrow", "+7", "2026-12-14": the next day that fits, from today on. The days are
 * those of the server (spec/vectors/days.json).
 * @param monthFirst whether 12/7 is 7 December
 * @returns such as "2026-12-14"; null when it is none
 */
export function readDate(typed: string, today: string, monthFirst = false): string | null {
  const text = typed.trim().toLowerCase().replaceAll(',', ' ')
  const full = /^(\d{4})-(\d\d?)-(\d\d?)$/.exec(text)
  if (full) return exact(Number(full[1]), Number(full[2]), Number(full[3]))
  if (text === 'today') return today
  if (text === 'tomorrow') return addDays(today, 1)
  const worded = dayOfWords(text, today)
  if (worded) return worded
  const ahead = /^\+(\d{1,3})$/.exec(text)
  if (ahead) return addDays(today, Number(ahead[1]))
  const wanted = partsOf(monthFirst ? dayFirst(text) : text)
  if (!wanted) return null
  if (wanted.year !== undefined && wanted.day !== undefined && wanted.month !== undefined) {
    const found = exact(wanted.year, wanted.month, wanted.day)
    return found && fits(utc(found), wanted) ? found : null
  }
  for (let i = 0; i < FURTHEST_DAYS; i++) {
    const day = addDays(today, i)
    if (fits(utc(day), wanted)) return day
  }
  return null
}

function exact(year: number, month: number, day: number) {
  const at = new Date(Date.UTC(year, month - 1, day))
  return at.getUTCMonth() === month - 1 && at.getUTCDate() === day ? iso(at) : null
}

function fits(at: Date, wanted: Wanted) {
  return (
    (wanted.weekday === undefined || at.getUTCDay() === wanted.weekday) &&
    (wanted.day === undefined || at.getUTCDate() === wanted.day) &&
    (wanted.month === undefined || at.getUTCMonth() === wanted.month - 1) &&
    (wanted.year === undefined || at.getUTCFullYear() === wanted.year)
  )
}

/** "12/7" → "7/12" */
const dayFirst = (text: string) => text.replace(/(?<!\d)(\d{1,2})\/(\d{1,2})(?!\d)/, '$2/$1')

/** Words and numbers in any order, day before month; null when something is left over. */
function partsOf(text: string): Wanted | null {
  const wanted: Wanted = {}
  for (const part of text.split(/[\s./-]+/).filter(Boolean)) {
    const ordinal = /^(\d{1,2})(st|nd|rd|th)$/.exec(part)
    const number = ordinal ? Number(ordinal[1]) : /^\d+$/.test(part) ? Number(part) : undefined
    const word = part.slice(0, 3)
    if (number === undefined && part.length >= 2) {
      const weekday = WEEKDAYS.findIndex(name => (part.length < 3 ? name.startsWith(part) : name === word))
      const month = MONTHS.indexOf(word)
      if (part.length >= 3 && month >= 0 && wanted.month === undefined) wanted.month = month + 1
      else if (weekday >= 0 && wanted.weekday === undefined) wanted.weekday = weekday
      else return null
    } else if (number !== undefined && wanted.day === undefined && number >= 1 && number <= 31) wanted.day = number
    else if (number !== undefined && wanted.month === undefined && number >= 1 && number <= 12) wanted.month = number
    else if (number !== undefined && wanted.year === undefined && (part.length === 4 || part.length === 2))
      wanted.year = part.length === 2 ? 2000 + number : number
    else return null
  }
  return wanted.day === undefined && wanted.weekday === undefined ? null : wanted
}

/** "9", "9.30", "0930", "1430", "2 pm" → "14:30"; null when it is none. */
export function readTime(typed: string): string | null {
  const found = /^(\d{1,2})(?:[.:h]?(\d\d))?\s*(am|pm)?$/.exec(typed.trim().toLowerCase())
  if (!found) return null
  const given = Number(found[1])
  if (found[3] && (given < 1 || given > 12)) return null
  const hour = found[3] ? (given % 12) + (found[3] === 'pm' ? 12 : 0) : given
  const minute = Number(found[2] ?? 0)
  return hour < 24 && minute < 60 ? clockOf(hour * 60 + minute) : null
}

export const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))

/** Minutes since midnight as "09:30"; further on is the next day's. */
export const clockOf = (minutes: number) => {
  const within = ((minutes % 1440) + 1440) % 1440
  return `${String(Math.floor(within / 60)).padStart(2, '0')}:${String(within % 60).padStart(2, '0')}`
}

/** "45", "1:30", "1h", "1 h 30", "90 min" → minutes; null when it is none. */
export function readLength(typed: string): number | null {
  const text = typed.trim().toLowerCase()
  const minutes = /^(\d{1,4})\s*(?:m|min|minutes?)?$/.exec(text)
  if (minutes) return Number(minutes[1])
  const hours = /^(\d{1,2})\s*(?::|h|hours?)\s*(?:(\d{1,2})\s*(?:m|min|minutes?)?)?$/.exec(text)
  return hours && Number(hours[2] ?? 0) < 60 ? Number(hours[1]) * 60 + Number(hours[2] ?? 0) : null
}

/** 90 → "1 h 30 min" */
export function lengthWords(minutes: number) {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60]
  return [hours ? `${hours} h` : '', rest || !hours ? `${rest} min` : ''].filter(Boolean).join(' ')
}
