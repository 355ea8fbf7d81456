import { now as present } from './present'

/** All formatting of dates and times. Wall-clock times come without a zone and are shown as they are. */

const utc = (wall: string) => new Date(`${wall.slice(0, 10)}T${wall.length > 10 ? wall.slice(11, 16) : '00:00'}:00Z`)
const format = (options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' })

const LONG = format({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
const MEDIUM = format({ weekday: 'long', day: 'numeric', month: 'long' })
const SHORT = format({ weekday: 'short', day: 'numeric', month: 'short' })
const COLUMN = format({ day: 'numeric', month: 'short' })

/** "Monday 30 November 2026" */
export const longDay = (wall: string) => LONG.format(utc(wall)).replace(',', '')
/** "Monday 30 November" */
export const mediumDay = (wall: string) => MEDIUM.format(utc(wall)).replace(',', '')
/** "Mon 30 Nov" */
export const shortDay = (wall: string) => SHORT.format(utc(wall)).replace(',', '')
/** "Monday" */
export const weekday = (wall: string) => LONG.formatToParts(utc(wall)).find(part => part.type === 'weekday')!.value
/** "30 Nov" */
export const columnDay = (wall: string) => COLUMN.format(utc(wall))
/** "09:30" */
export const clock = (wall: string) => wall.slice(11, 16)
/** "Lisbon" for Europe/Lisbon */
export const zoneCity = (zone: string) => zone.split('/').at(-1)!.replaceAll('_', ' ')

/** The present moment on a zone's wall, such as "2026-11-30T09:42". */
export function wallNow(timeZone: string, at = new Date(present())) {
  const parts = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' }).format(at)
  return parts.replace(' ', 'T').slice(0, 16)
}

/** Later on the same wall, without a zone's jumps. */
export const addMinutes = (wall: string, minutes: number) =>
  new Date(utc(wall).getTime() + minutes * 60_000).toISOString().slice(0, 19)

/** A moment on the wall of a zone. */
export const wallOf = (instant: string, timeZone: string) => wallNow(timeZone, new Date(instant))

/** A moment on the wall of a zone as an instant; a time that a clock change skips is read with the offset before it. */
export function instantOf(wall: string, zone: string) {
  const asked = new Date(`${wall.slice(0, 16)}:00Z`).getTime()
  const shown = (at: number) => new Date(`${wallNow(zone, new Date(at))}:00Z`).getTime()
  let at = asked - (shown(asked) - asked)
  // Beside a clock change the first guess may use the wrong offset.
  if (shown(at) !== asked) at += asked - shown(at)
  return new Date(at).toISOString()
}

/** ", 04:30 in Halifax" where the reader's wall shows another time; else nothing. */
export function ownTime(instant: string, local: string, timeZone: string | undefined) {
  if (!timeZone) return ''
  const mine = wallNow(timeZone, new Date(instant))
  if (mine === local.slice(0, 16)) return ''
  const day = mine.slice(0, 10) === local.slice(0, 10) ? '' : `${shortDay(mine)} `
  return `, ${day}${clock(mine)} in ${zoneCity(timeZone)}`
}

/** Whole days from one date to another; negative when it is past. */
export const daysFrom = (from: string, to: string) => Math.round((utc(to).getTime() - utc(from).getTime()) / 86_400_000)

/** "today", "tomorrow", "Thursday" within a week, else "Mon 30 Nov" */
export function nearDay(wall: string, today: string) {
  const days = daysFrom(today.slice(0, 10), wall.slice(0, 10))
  if (days === 0) return 'Today'
  if (days === 1) return 'Tomorrow'
  return mediumDay(wall)
}

/** "just now", "12 minutes ago", "on Monday 30 November" */
export function since(instant: string, now = present()) {
  const minutes = Math.round((now - new Date(instant).getTime()) / 60_000)
  if (minutes < 1) return 'just now'
  if (minutes < 60) return `${count(minutes, 'minute')} ago`
  return minutes < 24 * 60 ? `${count(Math.round(minutes / 60), 'hour')} ago` : `on ${mediumDay(instant)}`
}

/** How often something has gone from one meeting to the next. */
export const carriedWords = (times: number) =>
  times === 0 ? 'new' : times === 1 ? 'carried once' : `carried ${times} times`

const PLURALS: Record<string, string> = { series: 'series', person: 'people' }

/** "1 meeting", "3 people" */
export const count = (number: number, noun: string) =>
  `${number} ${number === 1 ? noun : (PLURALS[noun] ?? `${noun}s`)}`

export const list = (words: string[], none = '') => (words.length ? new Intl.ListFormat('en-GB').format(words) : none)
