import { describe, expect, it } from 'vitest'
import type { Line, Sheet } from '../src/api/client'
import { inverse, linesOf, withDeeds, withHeld, type Deed, type Entry } from '../src/deeds'

const line = (id: string, topicId: string | null, position: number, more = {}) =>
  ({ id, topicId, position, text: id, kind: 'note', version: 3, indent: 0, action: null, ...more }) as unknown as Line
const ACTION = { id: 'x', state: 'open', version: 0, dueOn: '2026-12-04', owners: [{ id: 'i', name: 'Ines' }] }

const SHEET = {
  people: [
    { id: 'i', name: 'Ines', attendance: null },
    { id: 'm', name: 'Marit', attendance: 'late', attendanceAt: '09:41' },
  ],
  leftOver: [{ id: 'o', review: { verdict: 'keep', word: 'soon' } }],
  leftOverLines: [line('l', null, 1)],
  topics: [
    { id: 't', putOff: false, lines: [line('a', 't', 1), line('b', 't', 2, { kind: 'action', action: ACTION })] },
    { id: 'u', putOff: false, lines: [line('c', 'u', 1)] },
  ],
} as unknown as Sheet

const sent = (deed: Deed, more = {}): Entry => ({ key: deed.kind, meetingId: 'm', by: 'm', deed, ...more })
const after = (...deeds: Deed[]) =>
  withDeeds(
    SHEET,
    deeds.map(deed => sent(deed)),
  )
const read = (sheet: Sheet) =>
  linesOf(sheet)
    .map(one => `${one.topicId ?? '-'}:${one.text}`)
    .join(' ')

const add = (id: string, more = {}): Deed => ({
  kind: 'add',
  lineId: id,
  line: { id, text: id, topicId: 't', ...more },
})
const change: Deed = { kind: 'change', lineId: 'a', topicId: 't', version: 3, body: { kind: 'note', text: 'A' } }
const move = (topicId: string | null, afterId: string | null): Deed => ({
  kind: 'move',
  lineId: 'a',
  body: { topicId, afterId, indent: 0 },
})
const remove: Deed = { kind: 'remove', lineId: 'a' }

describe('A sheet with what is not sent yet', () => {
  it.each<[string, Deed[], string]>([
    ['a line at the end', [add('n')], '-:l t:a t:b t:n u:c'],
    ['a line at the top', [add('n', { afterId: null })], '-:l t:n t:a t:b u:c'],
    ['a line below another', [add('n', { afterId: 'a' })], '-:l t:a t:n t:b u:c'],
    ['a line that the server has already', [add('a')], '-:l t:a t:b u:c'],
    ['a line of a topic that is gone', [add('n', { topicId: 'gone' })], '-:l gone:n t:a t:b u:c'],
    ['a changed line', [change], '-:l t:A t:b u:c'],
    ['a line moved down', [move('t', 'b')], '-:l t:b t:a u:c'],
    ['a line moved to another topic', [move('u', 'c')], '-:l t:b u:c u:a'],
    ['a removed line', [remove], '-:l t:b u:c'],
    [
      'a line brought back',
      [remove, { kind: 'restore', lineId: 'a', line: line('a', 't', 1), afterId: null }],
      '-:l t:a t:b u:c',
    ],
    ['one after the other', [add('n'), { ...change, lineId: 'n' }, move('u', null)], '-:l t:b t:A u:a u:c'],
  ])('shows %s', (_, deeds, expected) => expect(read(after(...deeds))).toBe(expected))

  it('still shows what was written on a line that somebody has removed meanwhile', () => {
    const gone = { ...change, lineId: 'gone' } as Deed
    expect(read(withDeeds(SHEET, [sent(gone, { theirs: null })]))).toBe('-:l t:a t:b t:A u:c')
  })

  it('still shows a line whose removal was refused', () =>
    expect(read(withDeeds(SHEET, [sent(remove, { refusal: 'It has gone on.' })]))).toBe('-:l t:a t:b u:c'))

  it('keeps owner and date of an action whose words alone are changed', () => {
    const changed = after({ ...change, lineId: 'b', body: { kind: 'action', text: 'B' } })
    expect(changed.topics[0].lines[1].action).toEqual(ACTION)
  })

  it('keeps a line that is being edited when it is gone', () => {
    const shown = withHeld({ ...SHEET, leftOverLines: [] }, new Map([['l', line('l', null, 1)]]))
    expect(shown.leftOverLines).toEqual([{ ...line('l', null, 1), gone: true }])
  })
})

describe('Taking back', () => {
  const deeds: Deed[] = [
    add('n'),
    change,
    { ...change, lineId: 'b', body: { kind: 'note', text: 'no action' } },
    move('u', 'c'),
    move(null, null),
    remove,
    { kind: 'attend', personId: 'm', body: { state: 'left' } },
    { kind: 'attendAll', people: [{ personId: 'i', state: 'present' }] },
    { kind: 'review', actionId: 'o', body: { verdict: 'done' } },
    { kind: 'putOff', topicId: 't', putOff: true },
  ]
  const plain = (sheet: Sheet) =>
    JSON.parse(JSON.stringify(sheet, (key, value) => (key === 'entry' ? undefined : value)))

  it.each(deeds.map(deed => [deed.kind, deed] as const))('a deed: %s', (_, deed) => {
    const back = inverse(deed, SHEET)!
    const there = after(deed)
    expect(plain(there)).not.toEqual(plain(SHEET))
    // The server makes other keys for actions.
    expect(
      plain(withDeeds(there, [sent(back)])).topics.map((topic: Sheet['topics'][number]) => topic.lines.length),
    ).toEqual(SHEET.topics.map(topic => topic.lines.length))
    expect(read(withDeeds(there, [sent(back)]))).toBe(read(SHEET))
    const once = withDeeds(there, [sent(back)])
    expect([once.people, once.leftOver, once.topics.map(topic => topic.putOff)]).toEqual([
      SHEET.people,
      SHEET.leftOver,
      [false, false],
    ])
  })

  it('does it again', () => {
    const back = inverse(change, SHEET)!
    expect(inverse(back, after(change))).toEqual({ ...change, body: { ...change.body, action: null } })
  })
})
