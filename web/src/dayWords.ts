/**
 * Days that are named without a number, as the line of the minutes reads them (spec/vectors/day_words.json): a week is
 * meant up to its Friday, a month up to its last day.
 */
const DAY_MS = 86_400_000
const utc = (day: string) => new Date(`${day}T00:00Z`)
const at = (year: number, month: number, day: number) => new Date(Date.UTC(year, month, day))
const add = (day: Date, days: number) => new Date(day.getTime() + days * DAY_MS)
const last = (year: number, month: number) => at(year, month + 1, 0)
const monday = (day: Date) => add(day, -((day.getUTCDay() + 6) % 7))
const weekday = (day: Date, wanted: number) => add(day, (wanted - day.getUTCDay() + 7) % 7)

const NAMES = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat']
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const NUMBERS = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten']
const DAY = '(sun|mon|tues?|wed(?:nes|s)?|thu(?:rs?)?|fri|sat(?:ur)?)(?:day)?'
const MONTH = `(${MONTHS.join('|')})[a-z]*\\.?`
const nameOf = (word: string) => NAMES.indexOf(word.slice(0, 3))
const monthOf = (word: string) => MONTHS.indexOf(word.slice(0, 3))

/** Of this year or the next: the first that is not past. */
const next = (today: Date, make: (year: number) => Date) =>
  [0, 1].map(more => make(today.getUTCFullYear() + more)).find(day => day >= today)!

/** The Gregorian Easter, as almanacs compute it (from memory). */
function easter(year: number) {
  const [golden, century, rest] = [year % 19, Math.floor(year / 100), year % 100]
  const shift = century - Math.floor(century / 4) - Math.floor((century - Math.floor((century + 8) / 25) + 1) / 3)
  const moon = (19 * golden + shift + 15) % 30
  const week = (32 + 2 * (century % 4) + 2 * Math.floor(rest / 4) - moon - (rest % 4)) % 7
  const late = Math.floor((golden + 11 * moon + 22 * week) / 451)
  const days = moon + week - 7 * late + 114
  return at(year, Math.floor(days / 31) - 1, (days % 31) + 1)
}

/** After ISO 8601: its Friday. */
function isoWeek(year: number, week: number) {
  return add(monday(at(year, 0, 4)), 7 * (week - 1) + 4)
}

/** Not every year has a week 53. */
function weekNumber(today: Date, week: number) {
  const has = (year: number) => week < 53 || isoWeek(year, 53).getTime() !== isoWeek(year + 1, 1).getTime()
  const first = monday(today).getUTCFullYear()
  return [first, first + 1]
    .filter(has)
    .map(year => isoWeek(year, week))
    .find(day => day >= today)!
}

function ahead(today: Date, words: string, unit: string) {
  const number = /^\d/.test(words) ? Number(words) : words === 'a couple of' ? 2 : Math.max(NUMBERS.indexOf(words), 1)
  if (unit.startsWith('day')) return add(today, number)
  if (unit.startsWith('w')) return add(today, 7 * number)
  const end = last(today.getUTCFullYear(), today.getUTCMonth() + number)
  return at(end.getUTCFullYear(), end.getUTCMonth(), Math.min(today.getUTCDate(), end.getUTCDate()))
}

const year = (today: Date) => today.getUTCFullYear()
const month = (today: Date) => today.getUTCMonth()
const friday = (today: Date) => weekday(today, 5)
const nextFriday = (today: Date) => add(monday(today), 11)
const inMonth = (today: Date, name: string, day: number) => next(today, y => at(y, monthOf(name), day))
const endOf = (today: Date, name: string) => next(today, y => last(y, monthOf(name)))

/** What is said, and the day it is; what stands in brackets is given along. */
const PHRASES: [string, (today: Date, ...found: string[]) => Date][] = [
  ['tonight|eod|cob|cop|(?:the )?end of (?:the )?day|close of (?:business|play)', today => today],
  ['eow|this (?:week|wk)|(?:the )?end of (?:the|this) (?:week|wk)', friday],
  ['(?:the )?(?:end of )?next (?:week|wk)', nextFriday],
  ['(?:the )?(?:end of )?(?:the )?week after next', today => add(nextFriday(today), 7)],
  ['eom|month end|this month|(?:the )?end of (?:the|this) month', today => last(year(today), month(today))],
  ['(?:the )?(?:end of )?next month', today => last(year(today), month(today) + 1)],
  ["eoy|year end|year's end|(?:the )?end of (?:the|this) year", today => at(year(today), 11, 31)],
  ['(?:christmas|xmas) eve', today => next(today, y => at(y, 11, 24))],
  ['christmas|xmas', today => next(today, y => at(y, 11, 25))],
  ['boxing day', today => next(today, y => at(y, 11, 26))],
  ["new year['’]s eve", today => next(today, y => at(y, 11, 31))],
  ['new year', today => next(today, y => at(y, 0, 1))],
  ['easter', today => next(today, easter)],
  ['(?:in|within) (?:a )?fortnight', today => add(today, 14)],
  [
    `(?:in|within) (\\d{1,2}|a couple of|an?|${NUMBERS.slice(1).join('|')}) (day|week|wk|month)s?`,
    (today, number, unit) => ahead(today, number!, unit!),
  ],
  [`next ${DAY}|next week(?: on)? ${DAY}|${DAY}(?: of)? next week`, (today, ...names) => weekdayNextWeek(today, names)],
  [`${DAY} fortnight`, (today, name) => add(weekday(today, nameOf(name!)), 14)],
  [`${DAY} week|a week on ${DAY}`, (today, one, other) => add(weekday(today, nameOf((one ?? other)!)), 7)],
  [`early (?:in )?${MONTH}`, (today, name) => inMonth(today, name!, 10)],
  [`mid(?:dle of)?[ -]${MONTH}`, (today, name) => inMonth(today, name!, 15)],
  [`(?:late (?:in )?|(?:the )?end (?:of )?)${MONTH}`, (today, name) => endOf(today, name!)],
  ['q([1-4])', (today, number) => next(today, y => last(y, Number(number) * 3 - 1))],
  [
    `(?:w/e|week ending) (\\d{1,2})(?:st|nd|rd|th)? ${MONTH}`,
    (today, day, name) => next(today, y => at(y, monthOf(name!), Number(day))),
  ],
  [
    `(?:w/c|wc|week commencing) (\\d{1,2})(?:st|nd|rd|th)? ${MONTH}`,
    (today, day, name) => add(monday(next(today, y => at(y, monthOf(name!), Number(day)))), 4),
  ],
  ['week ([1-9]|[1-4]\\d|5[0-3])', (today, number) => weekNumber(today, Number(number))],
  [
    '(?:the )?(\\d{1,2})(?:st|nd|rd|th)',
    (today, number) =>
      [0, 1, 2]
        .map(more => at(year(today), month(today) + more, Number(number)))
        .find(day => day.getUTCDate() === Number(number) && day > today)!,
  ],
]
const COMPILED = PHRASES.map(([words, day]) => [new RegExp(`^(?:${words})$`), day] as const)

function weekdayNextWeek(today: Date, names: (string | undefined)[]) {
  return add(monday(today), 7 + ((nameOf(names.find(Boolean)!) + 6) % 7))
}

/** @returns such as "2026-12-14"; null when it is no such word */
export function dayOfWords(typed: string, today: string): string | null {
  const text = typed.replace(/^(?:by|until|due(?: on| by)?)\s+/, '').replace(/\s+/g, ' ')
  for (const [pattern, day] of COMPILED) {
    const found = pattern.exec(text)
    if (found)
      return (
        day(utc(today), ...found.slice(1))
          ?.toISOString()
          .slice(0, 10) ?? null
      )
  }
  return null
}
