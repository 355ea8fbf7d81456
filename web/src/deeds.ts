import type { Line, Schemas, Sheet } from './api/client'

/** What a keeper does to a sheet, as it waits to be sent. */
export type Deed =
  | { kind: 'add'; lineId: string; line: Schemas['NewLine'] }
  | { kind: 'change'; lineId: string; topicId: string | null; version: number; body: Schemas['ChangedLine'] }
  | { kind: 'move'; lineId: string; body: Schemas['LinePosition'] }
  | { kind: 'remove'; lineId: string }
  | { kind: 'restore'; lineId: string; line: Line; afterId: string | null }
  | { kind: 'attend'; personId: string; body: Schemas['AttendanceWish'] }
  | { kind: 'attendAll'; people: Schemas['AttendanceOfAll']['people'] }
  | { kind: 'review'; actionId: string; body: Schemas['Review'] | null }
  | { kind: 'putOff'; topicId: string; putOff: boolean }

/**
 * A deed on its way. `refusal` is set when the server will never take it as it is; `theirs` when somebody else changed
 * the line meanwhile: how it reads now, or null when it is gone. `by` did it: nobody else sees it or sends it.
 */
export interface Entry {
  key: string
  meetingId: string
  by: string
  deed: Deed
  refusal?: string
  theirs?: Line | null
}

/** A line as the page shows it: with what is still on its way, or gone while it is being edited. */
export type ShownLine = Line & { entry?: Entry; gone?: boolean }

export const linesOf = (sheet: Sheet): ShownLine[] => [
  ...sheet.leftOverLines,
  ...sheet.topics.flatMap(topic => topic.lines),
]
export const findLine = (sheet: Sheet, id: string) => linesOf(sheet).find(line => line.id === id)
export const linesAt = (sheet: Sheet, topicId: string | null): ShownLine[] =>
  topicId === null ? sheet.leftOverLines : (sheet.topics.find(topic => topic.id === topicId)?.lines ?? [])

function eachList(sheet: Sheet, change: (lines: ShownLine[], topicId: string | null) => ShownLine[]): Sheet {
  return {
    ...sheet,
    leftOverLines: change(sheet.leftOverLines, null),
    topics: sheet.topics.map(topic => ({ ...topic, lines: change(topic.lines, topic.id) })),
  }
}

const without = (sheet: Sheet, id: string) => eachList(sheet, lines => lines.filter(line => line.id !== id))

/** @param afterId undefined: last; null: first */
function putIn(sheet: Sheet, line: ShownLine, afterId: string | null | undefined): Sheet {
  const known = line.topicId === null || sheet.topics.some(topic => topic.id === line.topicId)
  return eachList(sheet, (lines, topicId) => {
    if (topicId !== (known ? line.topicId : null)) return lines
    const found = afterId ? lines.findIndex(other => other.id === afterId) : -1
    const at = afterId === null ? 0 : found < 0 ? lines.length : found + 1
    return [...lines.slice(0, at), line, ...lines.slice(at)]
  })
}

function named(sheet: Sheet, ids: string[] | undefined) {
  return (ids ?? []).map(id => ({ id, name: sheet.people.find(person => person.id === id)?.name ?? '' }))
}

function asked(sheet: Sheet, line: ShownLine | undefined, wish: Schemas['ChangedLine']) {
  const kind = wish.kind ?? line?.kind ?? 'note'
  const none = kind === 'action' ? { id: '', state: 'open', version: 0, dueOn: null, owners: [] } : null
  const before = kind === 'note' ? null : (line?.action ?? none)
  if (!before) return { kind, text: wish.text, action: null }
  const action = wish.action
    ? { ...before, dueOn: wish.action.dueOn ?? null, owners: named(sheet, wish.action.ownerIds) }
    : before
  return { kind, text: wish.text, action }
}

function newLine(sheet: Sheet, entry: Entry, wish: Schemas['NewLine']): ShownLine {
  return {
    id: wish.id,
    topicId: wish.topicId ?? null,
    author: named(sheet, [entry.by])[0],
    writtenAt: '',
    version: 0,
    indent: wish.indent ?? 0,
    typed: wish.text,
    ...asked(sheet, undefined, wish),
    entry,
  } as ShownLine
}

function withLineDeed(sheet: Sheet, entry: Entry): Sheet {
  const deed = entry.deed as Extract<Deed, { lineId: string }>
  const line = findLine(sheet, deed.lineId)
  switch (deed.kind) {
    case 'add':
      return line ? sheet : putIn(sheet, newLine(sheet, entry, deed.line), deed.line.afterId)
    case 'restore':
      return line ? sheet : putIn(sheet, { ...deed.line, entry }, backAfter(sheet, deed))
    case 'remove':
      return entry.refusal ? marked(sheet, entry, deed.lineId) : without(sheet, deed.lineId)
    case 'change':
      // Changed by one while another removed it: what was written stands until it is let go.
      if (!line && entry.theirs === null)
        return putIn(sheet, newLine(sheet, entry, { ...deed.body, id: deed.lineId, topicId: deed.topicId }), undefined)
      return eachList(sheet, lines =>
        lines.map(one => (one.id === deed.lineId ? { ...one, ...asked(sheet, one, deed.body), entry } : one)),
      )
    case 'move':
      return line ? withMoved(sheet, { ...line, indent: deed.body.indent, entry }, deed.body) : sheet
  }
}

// Without a line to stand below it stays where it is.
function withMoved(sheet: Sheet, line: ShownLine, { topicId, afterId }: Schemas['LinePosition']) {
  if (afterId !== undefined) return putIn(without(sheet, line.id), { ...line, topicId: topicId ?? null }, afterId)
  return eachList(sheet, lines => lines.map(one => (one.id === line.id ? line : one)))
}

const marked = (sheet: Sheet, entry: Entry, id: string) =>
  eachList(sheet, lines => lines.map(line => (line.id === id ? { ...line, entry } : line)))

// One that the server has never had has no number; it goes back below the line it stood under.
const backAfter = (sheet: Sheet, { line, afterId }: { line: Line; afterId: string | null }) =>
  line.position === undefined && (afterId === null || findLine(sheet, afterId)) ? afterId : afterOf(sheet, line)

function afterOf(sheet: Sheet, line: Line) {
  const before = linesAt(sheet, line.topicId).filter(other => (other.position ?? 0) < (line.position ?? 0))
  return before.at(-1)?.id ?? null
}

function withDeed(sheet: Sheet, entry: Entry): Sheet {
  const { deed } = entry
  if (entry.refusal && !('lineId' in deed)) return sheet
  switch (deed.kind) {
    case 'attend':
      return {
        ...sheet,
        people: sheet.people.map(person =>
          person.id === deed.personId
            ? {
                ...person,
                attendance: deed.body.state,
                attendanceAt: deed.body.at ?? null,
                attendanceTimes: deed.body.times,
                attendanceWords: undefined,
              }
            : person,
        ),
      }
    case 'attendAll': {
      const states = new Map(deed.people.map(person => [person.personId, person.state]))
      return {
        ...sheet,
        people: sheet.people.map(person =>
          states.has(person.id) ? { ...person, attendance: states.get(person.id)! } : person,
        ),
      }
    }
    case 'review':
      return {
        ...sheet,
        leftOver: sheet.leftOver.map(action =>
          action.id === deed.actionId
            ? { ...action, review: deed.body && { verdict: deed.body.verdict, word: deed.body.word ?? null } }
            : action,
        ),
      }
    case 'putOff':
      return {
        ...sheet,
        topics: sheet.topics.map(topic => (topic.id === deed.topicId ? { ...topic, putOff: deed.putOff } : topic)),
      }
    default:
      return withLineDeed(sheet, entry)
  }
}

/** The sheet with what its reader has done and the server does not know yet. */
export const withDeeds = (sheet: Sheet, entries: Entry[]): Sheet => entries.reduce(withDeed, sheet)

/** Lines being edited stay where they are, even when somebody removes them. */
export function withHeld(sheet: Sheet, held: Map<string, Line>): Sheet {
  const missing = [...held.values()].filter(line => !findLine(sheet, line.id))
  return missing.reduce((shown, line) => putIn(shown, { ...line, gone: true }, afterOf(shown, line)), sheet)
}

const wishOf = (line: Line): Schemas['ChangedLine'] => ({
  kind: line.kind,
  text: line.text,
  action: line.action && { ownerIds: line.action.owners.map(owner => owner.id), dueOn: line.action.dueOn },
})

export function positionOf(sheet: Sheet, line: Line): Schemas['LinePosition'] {
  const lines = linesAt(sheet, line.topicId)
  const at = lines.findIndex(other => other.id === line.id)
  return { topicId: line.topicId, afterId: lines[at - 1]?.id ?? null, indent: line.indent ?? 0 }
}

/** Somebody's state with its times, as they are to stand again. */
const wasHere = (person: Sheet['people'][number]) => ({
  state: person.attendance ?? null,
  at: person.attendanceAt?.slice(0, 5) ?? null,
  times: person.attendanceTimes,
})

/** What takes a deed back, by how the sheet is before it is done; null when there is nothing to take back. */
export function inverse(deed: Deed, sheet: Sheet): Deed | null {
  switch (deed.kind) {
    case 'add':
    case 'restore':
      return { kind: 'remove', lineId: deed.lineId }
    case 'attend': {
      const person = sheet.people.find(one => one.id === deed.personId)
      return person ? { ...deed, body: wasHere(person) } : null
    }
    case 'attendAll': {
      const before = new Map(sheet.people.map(person => [person.id, person]))
      const stood = (id: string) => ({
        state: before.get(id)?.attendance ?? null,
        times: before.get(id)?.attendanceTimes,
      })
      return { ...deed, people: deed.people.map(one => ({ personId: one.personId, ...stood(one.personId) })) }
    }
    case 'review': {
      const review = sheet.leftOver.find(action => action.id === deed.actionId)?.review
      return { ...deed, body: review ? { verdict: review.verdict, word: review.word } : null }
    }
    case 'putOff':
      return { ...deed, putOff: !deed.putOff }
  }
  const line = findLine(sheet, deed.lineId)
  if (!line) return null
  switch (deed.kind) {
    case 'remove':
      return {
        kind: 'restore',
        lineId: line.id,
        line: { ...line, entry: undefined } as Line,
        afterId: positionOf(sheet, line).afterId ?? null,
      }
    case 'change':
      return { ...deed, version: line.version, body: wishOf(line) }
    case 'move':
      return {
        ...deed,
        body: deed.body.afterId === undefined ? { indent: line.indent ?? 0 } : positionOf(sheet, line),
      }
  }
}
