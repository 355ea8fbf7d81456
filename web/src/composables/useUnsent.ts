import { computed, reactive, toValue, type MaybeRefOrGetter } from 'vue'
import { v7 as newKey } from 'uuid'
import { api, dataOf, ifMatch, ProblemError, type Line, type Sheet } from '../api/client'
import type { Deed, Entry } from '../deeds'
import { keepEntry, readAll, readEntry, STORE } from './unsentStore'
import { useMine } from './useMine'
import { useNotice } from './useNotice'

/**
 * What has been done to sheets and not yet been taken by the server. Each deed lies under a key of its own in the
 * browser's storage, written before the page goes on, and stays until the server has it. Keys count up with time; all
 * tabs read the same entries, and one tab at a time sends them, in order.
 */
const LOCK = 'left-over:sending'
const LONGEST_PAUSE_MS = 8_000
// Another tab has sent it; the change is told a moment later.
const TOLD_WITHIN_MS = 1_500

type Result = Line | Sheet | undefined
const left = readAll(localStorage, Object.keys(localStorage))
const entries = reactive<Entry[]>(left.entries)
// What the browser's store had no room for lies here alone, until it is sent.
const onlyHere = new Set<string>()
const listeners = new Set<(entry: Entry, result: Result) => void>()
const { owner } = useMine()
let pauseMs = 500
let timer: ReturnType<typeof setTimeout> | undefined
let waiting = false

const warn = (text: string) => useNotice().show({ text, trouble: true })
if (left.unreadable)
  warn('Something that was waiting to be sent cannot be read any more. Look whether your last lines are there.')

const at = (key: string) => entries.findIndex(entry => entry.key === key)

function keep(entry: Entry) {
  if (keepEntry(localStorage, entry)) onlyHere.delete(entry.key)
  else if (!onlyHere.has(entry.key)) {
    onlyHere.add(entry.key)
    warn('This browser has no room left to keep what is not sent yet. Leave this page open until it is.')
  }
  const found = at(entry.key)
  if (found < 0) entries.push(entry)
  else entries[found] = entry
}

function drop(key: string) {
  onlyHere.delete(key)
  localStorage.removeItem(STORE + key)
  if (at(key) >= 0) entries.splice(at(key), 1)
}

addEventListener('storage', ({ key, newValue }) => {
  if (!key?.startsWith(STORE)) return
  const name = key.slice(STORE.length)
  if (newValue === null) return setTimeout(() => drop(name), TOLD_WITHIN_MS)
  const entry = readEntry(newValue)
  if (!entry) return
  if (at(name) >= 0) entries[at(name)] = entry
  else entries.push(entry)
})

const lineOf = (entry: Entry) => ('lineId' in entry.deed ? entry.deed.lineId : null)
const stands = (entry: Entry) => entry.refusal !== undefined || entry.theirs !== undefined

/** The oldest that can go: what follows one that was refused waits, where it is about the same line. */
function nextToSend() {
  const mine = entries.filter(entry => entry.by === owner.value).sort((a, b) => (a.key < b.key ? -1 : 1))
  const held = new Set(mine.filter(stands).map(lineOf))
  return mine.find(
    entry =>
      !stands(entry) &&
      !(lineOf(entry) && held.has(lineOf(entry))) &&
      (onlyHere.has(entry.key) || localStorage.getItem(STORE + entry.key) !== null),
  )
}

const actionOf = (line: Line) =>
  line.action && {
    id: line.action.id || undefined,
    ownerIds: line.action.owners.map(one => one.id),
    dueOn: line.action.dueOn,
  }

/** @returns the line or sheet as it is then */
function send({ meetingId, deed }: Entry): Promise<Result> {
  const meeting = { id: meetingId }
  switch (deed.kind) {
    case 'add':
      return dataOf(api.POST('/meetings/{id}/lines', { params: { path: meeting }, body: deed.line }))
    case 'change':
      return dataOf(
        api.PUT('/lines/{id}', {
          params: { path: { id: deed.lineId }, header: ifMatch(deed.version) },
          body: deed.body,
        }),
      )
    case 'move':
      return dataOf(api.PUT('/lines/{id}/position', { params: { path: { id: deed.lineId } }, body: deed.body }))
    case 'remove':
      return dataOf(api.DELETE('/lines/{id}', { params: { path: { id: deed.lineId } } }))
    case 'restore':
      return dataOf(
        api.POST('/lines/{id}/restore', {
          params: { path: { id: deed.lineId } },
          body: { action: actionOf(deed.line) },
        }),
      )
    case 'attend':
      return dataOf(
        api.PUT('/meetings/{id}/attendance/{personId}', {
          params: { path: { ...meeting, personId: deed.personId } },
          body: deed.body,
        }),
      )
    case 'attendAll':
      return dataOf(api.PUT('/meetings/{id}/attendance', { params: { path: meeting }, body: { people: deed.people } }))
    case 'review': {
      const path = { ...meeting, actionId: deed.actionId }
      return deed.body
        ? dataOf(api.PUT('/meetings/{id}/reviews/{actionId}', { params: { path }, body: deed.body }))
        : dataOf(api.DELETE('/meetings/{id}/reviews/{actionId}', { params: { path } }))
    }
    case 'putOff':
      return dataOf(
        api.PUT('/meetings/{id}/topics/{topicId}/put-off', {
          params: { path: { ...meeting, topicId: deed.topicId } },
          body: { putOff: deed.putOff },
        }),
      )
  }
}

// What was done after it was done to the line as it is now.
function carryVersion(sent: Entry, result: Result) {
  if (!lineOf(sent) || !result || !('version' in result)) return
  for (const entry of entries.filter(other => lineOf(other) === lineOf(sent)))
    if (entry.deed.kind === 'change' && entry.deed.version < result.version)
      keep({ ...entry, deed: { ...entry.deed, version: result.version } })
}

// The server has it: a fault of who is told of that is theirs, and sends nothing again.
function taken(entry: Entry, result: Result) {
  pauseMs = 500
  for (const tell of listeners) {
    try {
      tell(entry, result)
    } catch (fault) {
      console.error(fault)
    }
  }
  drop(entry.key)
  carryVersion(entry, result)
}

const readLine = (id: string) =>
  dataOf(api.GET('/lines/{id}', { params: { path: { id } } })).catch((error: ProblemError) => {
    if (error.status === 404) return null
    throw error
  })

/** @throws what passes: then all wait */
async function refused(entry: Entry, error: unknown) {
  // A fault of this page is no lost connection: it would be the same at the next try.
  if (!(error instanceof ProblemError)) {
    console.error(error)
    return keep({ ...entry, refusal: 'This page could not send it. Copy what you wrote, and load the page anew.' })
  }
  if (error.passing || [401, 403].includes(error.status)) throw error
  // Nothing on the page could show these as waiting: it is said, and the page is as the server has it.
  if (!lineOf(entry) || (entry.deed.kind === 'move' && error.status === 404)) {
    drop(entry.key)
    return useNotice().complain(error)
  }
  const changing = entry.deed.kind === 'change' && (error.code === 'changed-since' || error.status === 404)
  if (changing) keep({ ...entry, theirs: await readLine(lineOf(entry)!) })
  else keep({ ...entry, refusal: error.message })
}

async function sendAll() {
  clearTimeout(timer)
  try {
    for (let entry = nextToSend(); entry; entry = nextToSend()) {
      const current = entry
      await send(current).then(
        result => taken(current, result),
        error => refused(current, error),
      )
    }
  } catch (error) {
    if (!(error instanceof ProblemError)) console.error(error)
    timer = setTimeout(flush, pauseMs)
    pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS)
  }
}

/** One tab at a time, and within it one deed after another; where the browser has no locks, keys make it harmless. */
function flush() {
  if (waiting) return
  waiting = true
  const begin = () => {
    waiting = false
    return sendAll()
  }
  if (navigator.locks) void navigator.locks.request(LOCK, begin)
  else void begin()
}

const flushSoon = () => {
  timer = setTimeout(flush, 500)
}
addEventListener('online', () => {
  pauseMs = 500
  flush()
})
addEventListener('left-over:owner', flushSoon)
if (entries.length > 0) flushSoon()

export function useUnsent(meetingId?: MaybeRefOrGetter<string>) {
  const mine = computed(() => entries.filter(entry => entry.by === owner.value))
  return {
    /** Of one sheet, in the order in which they were done. */
    unsent: computed(() => mine.value.filter(entry => entry.meetingId === toValue(meetingId))),
    allUnsent: mine,
    enqueue(deed: Deed) {
      keep({ key: newKey(), meetingId: toValue(meetingId)!, by: owner.value!, deed })
      flush()
    },
    discard: (entry: Entry) => {
      drop(entry.key)
      flush()
    },
    /** Once more, over what somebody else has written meanwhile. */
    tryAgain(entry: Entry) {
      const { theirs, deed } = entry
      const version = theirs && deed.kind === 'change' ? { version: theirs.version } : {}
      keep({ ...entry, refusal: undefined, theirs: undefined, deed: { ...deed, ...version } as Deed })
      flush()
    },
    flush,
    onTaken(tell: (entry: Entry, result: Result) => void) {
      listeners.add(tell)
      return () => listeners.delete(tell)
    },
  }
}
