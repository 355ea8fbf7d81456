import type { Line, Schemas, Sheet } from './api/client'

type Part = NonNullable<Schemas['SheetChange']['part']>

const byPosition = (a: Line, b: Line) => (a.position ?? 0) - (b.position ?? 0) || a.id.localeCompare(b.id)

function withLine(lines: Line[], id: string, line: Line | null) {
  const others = lines.filter(other => other.id !== id)
  return line ? [...others, line].sort(byPosition) : others.length < lines.length ? others : lines
}

/** The sheet with a line as it stands now, or without the one that is gone (`line` null). */
export function withKeptLine(sheet: Sheet, id: string, line: Line | null): Sheet {
  const known = [sheet.leftOverLines, ...sheet.topics.map(topic => topic.lines)].flat().find(one => one.id === id)
  // What was told may have been read before what was answered.
  if (line && known && (known.changedAt ?? '') > (line.changedAt ?? '')) return sheet
  const at = (topicId: string | null) => (line && line.topicId === topicId ? line : null)
  return {
    ...sheet,
    leftOverLines: withLine(sheet.leftOverLines, id, at(null)),
    topics: sheet.topics.map(topic => ({ ...topic, lines: withLine(topic.lines, id, at(topic.id)) })),
  }
}

// What everybody is told comes without what the reader may do, and topics without their lines: those stand already.
function withPart(sheet: Sheet, { topics, taken, leftOver, ...plain }: Part): Sheet | null {
  const lines = new Map(sheet.topics.map(topic => [topic.id, topic.lines]))
  const may = new Map(sheet.leftOver.map(action => [action.id, action.mayChange]))
  const rows = leftOver as Sheet['leftOver'] | undefined
  if (rows?.some(action => !may.has(action.id))) return null
  const heads = (topics as Sheet['topics'] | undefined) ?? sheet.topics
  return {
    ...sheet,
    ...plain,
    leftOver: rows?.map(action => ({ ...action, mayChange: may.get(action.id)! })) ?? sheet.leftOver,
    topics: heads.map(topic => ({
      ...topic,
      lines: lines.get(topic.id) ?? [],
      taken: taken?.includes(topic.id) ?? topic.taken,
    })),
  }
}

/** The sheet with what a change tells of it; null when only reading it again helps. */
export function withChange(sheet: Sheet, change: Schemas['SheetChange']): Sheet | null {
  if (change.number <= sheet.number) return sheet
  if (change.kind === 'sheet') return null
  const told = change.part ? withPart(sheet, change.part) : sheet
  if (!told) return null
  const lined = change.kind === 'line' ? withKeptLine(told, change.lineId!, change.line ?? null) : told
  return { ...lined, number: change.number }
}
