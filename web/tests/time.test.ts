import { describe, expect, it } from 'vitest'
import { count, daysFrom, nearDay, ownTime, shortDay, since, wallNow } from '../src/time'

describe('Times as they are shown', () => {
  it('says the reader’s own time only where it differs, with the day where that does', () => {
    const instant = '2026-11-30T01:30:00Z'
    expect(ownTime(instant, '2026-11-30T02:30:00', 'Europe/Oslo')).toBe('')
    expect(ownTime(instant, '2026-11-30T02:30:00', 'Europe/Lisbon')).toBe(', 01:30 in Lisbon')
    expect(ownTime(instant, '2026-11-30T02:30:00', 'America/Halifax')).toBe(', Sun 29 Nov 21:30 in Halifax')
  })

  it('reads the wall of a zone across a clock change', () => {
    expect(wallNow('Europe/Oslo', new Date('2027-03-28T00:59:00Z'))).toBe('2027-03-28T01:59')
    expect(wallNow('Europe/Oslo', new Date('2027-03-28T01:00:00Z'))).toBe('2027-03-28T03:00')
  })

  it('shows a wall-clock day as it is, wherever the browser stands', () => {
    expect(shortDay('2026-11-30T23:30:00')).toBe('Mon 30 Nov')
    expect(daysFrom('2026-11-30', '2026-11-29')).toBe(-1)
    expect([nearDay('2026-11-30T09:00', '2026-11-30'), nearDay('2026-12-01', '2026-11-30')]).toEqual([
      'Today',
      'Tomorrow',
    ])
  })

  it('says how long ago, and one person, two people', () => {
    const now = Date.parse('2026-11-30T12:00:00Z')
    expect([20, 90, 7_200].map(s => since(new Date(now - s * 1_000).toISOString(), now))).toEqual([
      'just now',
      '2 minutes ago',
      '2 hours ago',
    ])
    expect([count(1, 'person'), count(2, 'person'), count(0, 'meeting')]).toEqual([
      '1 person',
      '2 people',
      '0 meetings',
    ])
  })
})
