import { computed, nextTick, onBeforeUnmount, reactive, toValue, type MaybeRefOrGetter, type Ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Line, Schemas, Sheet } from '../api/client'
import { findLine, inverse, linesAt, positionOf, withDeeds, withHeld, type Deed, type Entry } from '../deeds'
import { useSteps, type Step } from './useSteps'
import { useUnsent } from './useUnsent'

const SENT_WITHIN_MS = 8_000

interface Kept {
  keepLine: (line: Line) => void
  dropLine: (id: string) => void
  show: (sheet: Sheet) => void
}

/**
 * Writing on a sheet. Whatever is done stands at once, is sent when it can be, and can be taken back and done again:
 * each person their own.
 */
export function useMinutes(id: MaybeRefOrGetter<string>, sheet: Ref<Sheet | undefined>, kept: Kept) {
  const { unsent, enqueue, discard, tryAgain, onTaken } = useUnsent(id)
  const held = reactive(new Map<string, Line>())
  const shown = computed(() => sheet.value && withHeld(withDeeds(sheet.value, unsent.value), held))
  const { remember, ...steps } = useSteps()

  onBeforeUnmount(
    onTaken(({ meetingId, deed }, result) => {
      if (meetingId !== toValue(id)) return
      if (deed.kind === 'remove') kept.dropLine(deed.lineId)
      else if (result && 'topics' in result) kept.show(result)
      else if (result) kept.keepLine(result)
    }),
  )

  /** @returns what takes them back */
  function run(deeds: Deed[]): Deed[] {
    const undo: Deed[] = []
    for (const deed of deeds) {
      const before = shown.value && inverse(deed, shown.value)
      if (before) undo.unshift(before)
      enqueue(deed)
    }
    return undo
  }
  function act(...deeds: Deed[]) {
    remember(step(run(deeds), deeds))
  }
  // The version is that of the line as it is now.
  const atVersion = (deed: Deed) =>
    deed.kind === 'change' && shown.value
      ? { ...deed, version: findLine(shown.value, deed.lineId)?.version ?? deed.version }
      : deed
  /**
   * What is done again is what was done, not what the page showed while it was taken back: an answer may still be on
   * its way then. Only lines that come and go are brought back as they were at that moment.
   */
  const step =
    (deeds: Deed[], again: Deed[] = []): Step =>
    () => {
      const back = run(deeds.map(atVersion))
      const same = again.length > 0 && again.every(({ kind }) => kind !== 'add' && kind !== 'restore')
      return step(same ? again : back, deeds)
    }

  function add(topicId: string | null, text: string, wish: Partial<Schemas['NewLine']> = {}) {
    const line = { id: newKey(), topicId, text, ...wish }
    act({ kind: 'add', lineId: line.id, line })
    return line.id
  }
  /** Lines that come together, and are taken back together. */
  function addSeveral(topicId: string | null, texts: string[]) {
    const lines = texts.map(text => ({ id: newKey(), topicId, text }))
    act(...lines.map((line): Deed => ({ kind: 'add', lineId: line.id, line })))
  }
  const changed = (line: Line, body: Schemas['ChangedLine'], version = line.version): Deed => ({
    kind: 'change',
    lineId: line.id,
    topicId: line.topicId,
    version,
    body,
  })
  const change = (line: Line, body: Schemas['ChangedLine'], version = line.version) => act(changed(line, body, version))

  /** Past its neighbour; from the end of a topic on to the next one. */
  function move(line: Line, by: 1 | -1) {
    const lines = linesAt(shown.value!, line.topicId)
    const at = lines.findIndex(other => other.id === line.id)
    const body = positionOf(shown.value!, line)
    if (by === 1 && at < lines.length - 1) put(line, { ...body, afterId: lines[at + 1].id })
    else if (by === -1 && at > 0) put(line, { ...body, afterId: lines[at - 2]?.id ?? null })
    else {
      const topics = [null, ...shown.value!.topics.map(topic => topic.id)]
      const next = topics[topics.indexOf(line.topicId) + by]
      if (next === undefined) return
      put(line, {
        ...body,
        topicId: next,
        afterId: by === 1 ? null : (linesAt(shown.value!, next).at(-1)?.id ?? null),
      })
    }
  }
  const put = (line: Line, body: Schemas['LinePosition']) => act({ kind: 'move', lineId: line.id, body })

  /** One line made two, at once and taken back at once; and two made one. */
  function split(line: Line, before: string, after: string) {
    const id = newKey()
    const wish = { id, topicId: line.topicId, text: after, afterId: line.id, indent: (line.indent ?? 0) as 0 | 1 }
    act(changed(line, { kind: line.kind, text: before }), { kind: 'add', lineId: id, line: wish })
  }
  /** A line that gives several people work, as a line for each piece; each is read anew. */
  function apart(line: Line, [first = '', ...others]: string[]) {
    const { topicId } = line
    const indent = (line.indent ?? 0) as 0 | 1
    let afterId = line.id
    const adds = others.map((text): Deed => {
      const wish = { id: newKey(), topicId, afterId, indent, text }
      afterId = wish.id
      return { kind: 'add', lineId: wish.id, line: wish }
    })
    act(changed(line, { text: first }), ...adds)
  }
  /** What several own together, as a line for each of them. */
  function oneEach(line: Line) {
    const [first, ...others] = line.action!.owners
    const forOne = (owner: Schemas['Named'] | undefined) => ({
      kind: 'action' as const,
      text: line.text,
      action: { ownerIds: [owner!.id], dueOn: line.action!.dueOn },
    })
    const { topicId, indent } = line
    let afterId = line.id
    const adds = others.map((owner): Deed => {
      const wish = { id: newKey(), topicId, afterId, indent: (indent ?? 0) as 0 | 1, ...forOne(owner) }
      afterId = wish.id
      return { kind: 'add', lineId: wish.id, line: wish }
    })
    act(changed(line, forOne(first)), ...adds)
  }
  function join(line: Line, text: string) {
    const lines = linesAt(shown.value!, line.topicId)
    const before = lines[lines.findIndex(other => other.id === line.id) - 1]
    if (!before) return
    const together = `${before.text} ${text}`.trim()
    act(changed(before, { kind: before.kind, text: together }), { kind: 'remove', lineId: line.id })
  }

  /** What to do with a line that somebody else has changed meanwhile. */
  function settle(entry: Entry, how: 'theirs' | 'mine' | 'both') {
    const { deed, theirs } = entry
    if (deed.kind !== 'change') return
    if (how === 'mine' && theirs) return tryAgain(entry)
    discard(entry)
    if (how === 'theirs') return theirs ? kept.keepLine(theirs) : kept.dropLine(deed.lineId)
    const { text, kind, action } = deed.body
    add(theirs?.topicId ?? deed.topicId, text, { kind, action, ...(theirs ? { afterId: theirs.id } : {}) })
  }

  return {
    shown,
    unsent,
    act,
    add,
    addSeveral,
    change,
    remove: (line: Line) => act({ kind: 'remove', lineId: line.id }),
    move,
    put,
    split,
    apart,
    oneEach,
    join,
    indent: (line: Line, indent: 0 | 1) => (line.indent ?? 0) !== indent && put(line, { indent }),
    settle,
    discard,
    tryAgain,
    /** Whether a line is being edited. */
    editing: computed(() => held.size > 0),
    /** A line being edited is not taken away; null: it is no longer. */
    hold: (line: Line, editing: boolean) => (editing ? held.set(line.id, line) : held.delete(line.id)),
    /** Waits a while. @returns whether nothing of this sheet is on its way any more */
    allSent: () =>
      new Promise<boolean>(resolve => {
        const timer = setTimeout(() => finish(), SENT_WITHIN_MS)
        const stop = watch(unsent, () => unsent.value.length === 0 && finish(), { immediate: true })
        function finish() {
          clearTimeout(timer)
          nextTick(() => stop())
          resolve(unsent.value.length === 0)
        }
      }),
    /** @param step takes back something done otherwise than by deeds */
    remember,
    step,
    ...steps,
  }
}
