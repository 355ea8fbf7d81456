import { describe, expect, it } from 'vitest'
import { formOf, ruleOf } from '../src/rule'

const run = (rule: string | null) => ({ rule, timeZone: 'Europe/Oslo', lengthMin: 45 })
const COMING = ['2026-11-30T09:30:00', '2026-12-07T09:30:00', '2026-12-14T09:30:00']
const partsOf = (rule: string | null) => new Set(rule?.split(';'))

describe('The form of a rule', () => {
  // What holds is shown as choices, and says the same rule again when nothing is changed (RFC 5545 3.3.10).
  it.each([
    ['FREQ=DAILY;INTERVAL=1', 'daily'],
    ['FREQ=WEEKLY;BYDAY=MO,WE;INTERVAL=2', 'weekly'],
    ['FREQ=MONTHLY;BYMONTHDAY=-1;INTERVAL=1', 'month-day'],
    ['FREQ=MONTHLY;BYDAY=-1FR;INTERVAL=3', 'month-weekday'],
    ['FREQ=YEARLY;BYMONTH=11;BYMONTHDAY=30;INTERVAL=1', 'yearly'],
    ['FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=1', 'kept'],
    ['FREQ=WEEKLY;BYDAY=MO;BYMONTH=1,2', 'kept'],
  ])('opens %s as %s, and gives it back', (rule, repeat) => {
    const form = formOf(run(rule), COMING)
    expect(form.repeat).toBe(repeat)
    expect(partsOf(ruleOf(form))).toEqual(partsOf(rule))
  })

  it('counts what is left of a number of meetings, and begins at the first of them', () => {
    const form = formOf(run('FREQ=WEEKLY;BYDAY=MO;COUNT=40'), COMING)
    expect([form.end, form.count, form.day, form.time]).toEqual(['count', 3, '2026-11-30', '09:30'])
  })

  it('ends on the day of the series’ own wall', () => {
    const form = formOf(run('FREQ=WEEKLY;BYDAY=MO;UNTIL=20270103T230000Z'), COMING)
    expect([form.end, form.untilDay]).toEqual(['until', '2027-01-04'])
    expect(ruleOf(form)).toContain('UNTIL=20270104T235959')
  })

  it('has no rule for one meeting, nor for dates by hand', () => {
    expect(ruleOf(formOf(run(null), COMING.slice(0, 1)))).toBeNull()
    const byHand = formOf(run(null), COMING)
    expect([byHand.repeat, byHand.dates]).toEqual(['by-hand', ['2026-12-07T09:30', '2026-12-14T09:30']])
  })
})
