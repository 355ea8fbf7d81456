import { describe, expect, it } from 'vitest'
import type { Line, Schemas, Sheet } from '../src/api/client'
import { withChange, withKeptLine } from '../src/sheetChange'

const line = (id: string, topicId: string | null, position: number, text = id) =>
  ({ id, topicId, position, text }) as Line

const SHEET = {
  id: 'm',
  number: 4,
  quorate: false,
  leftOver: [{ id: 'a', text: 'Order rope', mayChange: true }],
  leftOverLines: [line('x', null, 31)],
  topics: [
    { id: 't', title: 'Boats', taken: false, lines: [line('k', 't', 40)] },
    { id: 'u', title: 'Crew', taken: false, lines: [] },
  ],
} as unknown as Sheet

const change = (told: object) => ({ number: 5, ...told }) as Schemas['SheetChange']
const texts = (sheet: Sheet | null) =>
  [sheet!.leftOverLines, ...sheet!.topics.map(topic => topic.lines)].map(lines => lines.map(one => one.text))

describe('A change of a sheet', () => {
  it.each([
    ['comes, in its place', line('j', 't', 39), [['x'], ['j', 'k'], []]],
    ['reads differently', line('k', 't', 40, 'new'), [['x'], ['new'], []]],
    ['stands elsewhere now', line('k', 'u', 40), [['x'], [], ['k']]],
    ['goes', null, [['x'], [], []]],
  ])('of a line that %s', (_, told, expected) => {
    const changed = withChange(SHEET, change({ kind: 'line', lineId: told?.id ?? 'k', line: told }))
    expect(texts(changed)).toEqual(expected)
    expect(changed!.number).toBe(5)
  })

  it('keeps the lines of topics, which come without', () => {
    const told = withChange(
      SHEET,
      change({ kind: 'part', part: { topics: [{ id: 'u' }, { id: 't', title: 'Ships' }] } }),
    )
    expect(texts(told)).toEqual([['x'], [], ['k']])
    expect(told!.topics[1].title).toBe('Ships')
  })

  it('keeps what the reader may do with what is left over', () => {
    const told = withChange(SHEET, change({ kind: 'part', part: { leftOver: [{ id: 'a', text: 'Order two ropes' }] } }))
    expect(told!.leftOver).toEqual([{ id: 'a', text: 'Order two ropes', mayChange: true }])
  })

  it.each([
    ['says so', { kind: 'sheet' }],
    ['brings an action not known yet', { kind: 'part', part: { leftOver: [{ id: 'b' }] } }],
  ])('has the sheet read again when it %s', (_, told) => expect(withChange(SHEET, change(told))).toBeNull())

  it('is passed over when it is known already', () =>
    expect(withChange(SHEET, { number: 4, kind: 'sheet' } as Schemas['SheetChange'])).toBe(SHEET))

  it('tells which topics are taken', () => {
    const told = withChange(SHEET, change({ kind: 'line', lineId: 'k', line: null, part: { taken: ['u'] } }))
    expect(told!.topics.map(topic => topic.taken)).toEqual([false, true])
  })
})

describe('A line that is kept', () => {
  it('is not made older by what was read before', () => {
    const at = (text: string, changedAt: string) => ({ ...line('k', 't', 1, text), changedAt })
    const newer = withKeptLine(SHEET, 'k', at('newer', '2026-11-30T09:40:00.000002Z'))
    const told = withKeptLine(newer, 'k', at('older', '2026-11-30T09:40:00.000001Z'))
    expect(texts(told)).toEqual(texts(newer))
  })

  it('stands once, however often it is told', () => {
    const kept = line('n', 'u', 60)
    expect(texts(withKeptLine(withKeptLine(SHEET, 'n', kept), 'n', kept))).toEqual([['x'], ['k'], ['n']])
  })
})
