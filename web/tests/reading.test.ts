import { describe, expect, it } from 'vitest'
import days from '../../spec/vectors/days.json'
import words from '../../spec/vectors/day_words.json'
import { clockOf, readDate, readLength, readTime } from '../src/reading'

const TODAY = '2026-11-25' // a Wednesday

describe('A date as people type it', () => {
  it.each([
    ['fri', '2026-11-27'],
    ['wed', '2026-11-25'],
    ['fri 4', '2026-12-04'],
    ['fri 13', '2027-08-13'],
    ['14.12.', '2026-12-14'],
    ['14 dec 27', '2027-12-14'],
    ['1 nov', '2027-11-01'],
    ['29 feb', '2028-02-29'],
    ['3rd december', '2026-12-03'],
    ['+7', '2026-12-02'],
    ['tomorrow', '2026-11-26'],
    ['2026-12-14', '2026-12-14'],
  ])('“%s” is %s', (typed, day) => expect(readDate(typed, TODAY)).toBe(day))

  it.each(['', '32 foo', '31.11.2026', '2026-02-29', 'mon 1 dec 2026', '45'])('“%s” is none', typed =>
    expect(readDate(typed, TODAY)).toBeNull(),
  )
})

describe('A date in words, as the line of the minutes reads it', () => {
  it.each(words.days)('“$text” said on $today', ({ text, today, day }) => {
    expect(readDate(text, today)).toBe(day)
    expect(readDate(`by ${text}`, today)).toBe(day)
  })

  it.each(['asap', 'soon', 'next meeting', 'in x weeks', 'week 60', 'end of'])('“%s” is none', text =>
    expect(readDate(text, TODAY)).toBeNull(),
  )
})

describe('A date as the server reads it', () => {
  it.each(days.days)('“$text” said on $today', ({ text, today, day, month_first }) =>
    expect(readDate(text, today, month_first)).toBe(day),
  )
})

describe('A time and a length as people type them', () => {
  it.each([
    ['9', '09:00'],
    ['9.30', '09:30'],
    ['0930', '09:30'],
    ['14h05', '14:05'],
    ['2 pm', '14:00'],
    ['12 am', '00:00'],
    ['12.15pm', '12:15'],
  ])('“%s” is %s', (typed, time) => expect(readTime(typed)).toBe(time))

  it.each(['', '24', '9.60', '13 pm', 'noon'])('“%s” is no time', typed => expect(readTime(typed)).toBeNull())

  it.each([
    ['45', 45],
    ['1:30', 90],
    ['1h', 60],
    ['1 h 30 min', 90],
    ['90 min', 90],
  ])('“%s” is %d minutes', (typed, minutes) => expect(readLength(typed)).toBe(minutes))

  it.each(['', '1:60', 'an hour'])('“%s” is no length', typed => expect(readLength(typed)).toBeNull())

  it('goes on past midnight', () => expect([clockOf(1_450), clockOf(-10)]).toEqual(['00:10', '23:50']))
})
