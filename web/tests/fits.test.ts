import { describe, expect, it } from 'vitest'
import type { Schemas } from '../src/api/client'
import { emptyLook, helped, isWithin, startsOf } from '../src/commonTime'

const look = {
  ...emptyLook('Europe/Oslo'),
  fromDay: '2026-12-07',
  days: 5,
  people: [{ personId: 'wen', role: 'required' as const }],
  guests: [{ id: 'pat', name: 'Pat', role: 'required' as const, timeZone: 'Europe/Oslo', workingHours: null }],
}
const remedy = (kind: Schemas['Remedy']['kind'], more: Partial<Schemas['Remedy']> = {}): Schemas['Remedy'] => ({
  kind,
  lengthMin: null,
  personId: null,
  stretchMin: null,
  starts: 1,
  firstStart: '2026-12-15T09:00:00',
  sentence: '',
  ...more,
})

describe('What would help is looked for', () => {
  it.each([
    ['a shorter meeting', remedy('shorter', { lengthMin: 30 }), { lengthMin: 30 }],
    ['later days', remedy('later'), { fromDay: '2026-12-15' }],
    ['wider hours', remedy('stretch', { stretchMin: 60 }), { stretchMin: 60 }],
    ['no place', remedy('any_place'), { place: 'none' }],
    ['without one', remedy('without', { personId: 'wen' }), { people: [] }],
    ['without a guest', remedy('without', { personId: 'pat' }), { guests: [] }],
    [
      'without one of a group',
      remedy('without', { personId: 'lars' }),
      { people: [...look.people, { personId: 'lars', role: 'optional' }] },
    ],
  ])('%s', (_, given, changed) => expect(helped(look as typeof look, given)).toEqual({ ...look, ...changed }))
})

describe('A free stretch', () => {
  it('may begin at each of its steps', () => {
    const stretch = {
      firstAt: '2026-12-07T09:00:00Z',
      lastAt: '2026-12-07T09:30:00Z',
      localStart: '',
      localEnd: '',
      stepMin: 15,
    }
    expect(startsOf(stretch).map(at => at.slice(11, 16))).toEqual(['09:00', '09:15', '09:30'])
  })

  it.each([
    ['2026-12-07T09:00', true],
    ['2026-12-11T23:00', true],
    ['2026-12-12T00:00', false],
    ['2026-12-06T23:59', false],
  ])('%s is among the days: %s', (wall, within) => expect(isWithin(wall, look as typeof look)).toBe(within))
})
