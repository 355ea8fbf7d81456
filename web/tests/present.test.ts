import { afterEach, expect, test } from 'vitest'
import { heardFrom, now } from '../src/present'

const MACHINE = Date.UTC(2026, 10, 30, 8)
const AT = 'Mon, 30 Nov 2026 09:30:00 GMT' // RFC 9110 5.6.7

afterEach(() => heardFrom(new Date(MACHINE).toUTCString(), MACHINE))

test.each([
  ['a clock an hour and a half behind', AT, 5_400_000],
  ['one that is right but for the way of the answer', 'Mon, 30 Nov 2026 08:00:03 GMT', 0],
  ['one that is ahead', 'Mon, 30 Nov 2026 07:00:00 GMT', -3_600_000],
])('%s is put right', (_, date, ahead) => {
  heardFrom(date, MACHINE)
  expect(now(MACHINE) - MACHINE).toBe(ahead)
})

test.each([
  ['no head', null],
  ['no date', 'soon'],
])('%s changes nothing', (_, date) => {
  heardFrom(AT, MACHINE)
  heardFrom(date, MACHINE)
  expect(now(MACHINE) - MACHINE).toBe(5_400_000)
})
