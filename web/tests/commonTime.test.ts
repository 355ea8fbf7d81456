import { describe, expect, it } from 'vitest'
import type { Schemas } from '../src/api/client'
import { emptyLook, outcomeOf, runWishOf, stepped, takingRun, wishOf, type Look } from '../src/commonTime'

const marit = { personId: '019e6ffc-4321-769c-a570-daec97dc348b', role: 'required' } as Schemas['Asked']
const look = (over: Partial<Look> = {}): Look => ({
  ...emptyLook('Europe/Oslo'),
  people: [marit],
  fromDay: '2026-11-30',
  ...over,
})
const wish = (over: Partial<Look> = {}) => wishOf(look(over), 'Europe/Oslo', {})

describe('what a search for common times asks for', () => {
  // Half a form asks for nothing: the server would only refuse it.
  it.each<[string, Partial<Look>]>([
    ['nobody chosen', { people: [] }],
    ['no length', { lengthMin: '' }],
    ['no first day', { fromDay: '' }],
    ['no hour to begin at', { dayFrom: '' }],
    ['no hour to end by', { dayTo: '' }],
  ])('is nothing with %s', (_, over) => expect(wish(over)).toBeNull())

  it.each<[string, Partial<Look>, Schemas['PlaceSought'] | null]>([
    ['none wanted', {}, null],
    ['one that is named', { place: 'a-key' }, { placeId: 'a-key' }],
    ['any that fits', { place: 'fitting', seats: 8, equipment: ['screen'] }, { seats: 8, equipment: ['screen'] }],
    ['any with a screen', { place: 'fitting', equipment: ['screen'] }, { equipment: ['screen'] }],
  ])('says which place: %s', (_, over, place) => expect(wish(over)!.place).toEqual(place))

  it.each<[string, Partial<Look>, boolean]>([
    ['across a run', { across: true }, true],
    ['once', {}, false],
    ['without how often', { across: true, run: { ...look().run, interval: '' } }, false],
    ['without how many', { across: true, run: { ...look().run, count: '' } }, false],
  ])('asks for a run: %s', (_, over, asked) => expect(runWishOf(look(over), wish(over)) !== null).toBe(asked))
})

describe('the days before and after', () => {
  it.each<[number, number, string]>([
    [5, 1, '2026-12-07'],
    [5, -1, '2026-11-23'],
    [10, 1, '2026-12-14'],
    [31, 1, '2027-01-04'],
  ])('%i days, by %i, begin on %s', (days, by, day) => expect(stepped(look({ days }), by)).toBe(day))
})

describe('what a search has come to, in words', () => {
  const found = (over: Partial<Schemas['CommonTime']>) =>
    ({ holding: 0, total: 40, fewestMissing: 0, ...over }) as Schemas['CommonTime']
  it.each<[string, Partial<Look>, Schemas['CommonTime'] | undefined, string]>([
    ['nobody', { people: [] }, undefined, 'Choose who must come'],
    ['no length', { lengthMin: '' }, undefined, 'Give a length from 1 to 720 minutes'],
    ['too long', { lengthMin: 721 }, undefined, 'Give a length from 1 to 720 minutes'],
    ['no day', { fromDay: '' }, undefined, 'Give the first day'],
    ['on its way', {}, undefined, 'Searching …'],
    ['one', {}, found({ holding: 1 }), '1 time suits all who must come'],
    ['some', {}, found({ holding: 3 }), '3 times suit all who must come'],
    ['no start at all', {}, found({ total: 0 }), 'No time fits these limits'],
    ['not known', {}, found({}), 'Nothing against these times, but not all who must come are sure'],
    ['somebody is missing', {}, found({ fewestMissing: 2 }), 'No time suits all who must come'],
  ])('%s', (_, over, answer, words) => expect(outcomeOf(look(over), answer, true, false)).toBe(words))
})

it('takes the repairs of a run along', () => {
  const date = (localStart: string, repair: string | null) => ({
    localStart,
    startsAt: `${localStart}Z`,
    repair: repair && { localStart: repair, startsAt: `${repair}Z`, headline: '' },
  })
  const run = {
    rule: 'FREQ=WEEKLY;COUNT=2',
    localStart: '2026-11-30T09:00:00',
    dates: [date('2026-11-30T09:00:00', null), date('2026-12-07T09:00:00', '2026-12-07T10:00:00')],
  } as unknown as Schemas['RunTime']
  expect(takingRun(run)).toEqual({
    kind: 'series',
    startsAt: '2026-11-30T09:00:00Z',
    localStart: '2026-11-30T09:00:00',
    rule: 'FREQ=WEEKLY;COUNT=2',
    dates: [],
    moves: [{ from: '2026-12-07T09:00:00', to: '2026-12-07T10:00:00' }],
  })
})
