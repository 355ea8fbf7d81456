import { computed, reactive, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ProblemError, type Schemas } from '../api/client'
import { useMine } from './useMine'

/**
 * A line that has been typed and not yet been taken by the server. `refusal` is set when it never will be as it is;
 * `by` is who typed it: nobody else sees it or sends it.
 */
export interface UnsentLine {
  meetingId: string
  line: Schemas['NewLine']
  by: string | null
  refusal?: string
}

const STORE = 'left-over:unsent'
const LONGEST_PAUSE_MS = 8_000
const queue = reactive<UnsentLine[]>(JSON.parse(localStorage.getItem(STORE) ?? '[]'))
const listeners = new Set<(meetingId: string, line: Schemas['Line']) => void>()
let pauseMs = 500
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false

const { owner } = useMine()
const isMine = (entry: UnsentLine) => owner.value !== null && entry.by === owner.value
const nextToSend = () => queue.find(entry => isMine(entry) && !entry.refusal)

function keep() {
  localStorage.setItem(STORE, JSON.stringify(queue))
}

function takeOut(entry: UnsentLine) {
  const index = queue.findIndex(other => other.line.id === entry.line.id)
  if (index >= 0) queue.splice(index, 1)
  keep()
}

/** One after another, so that lines arrive in the order typed. The key made here makes a second try harmless. */
async function flush() {
  clearTimeout(timer)
  if (sending) return
  sending = true
  try {
    for (let entry = nextToSend(); entry; entry = nextToSend()) {
      const current = entry
      const taken = await dataOf(
        api.POST('/meetings/{id}/lines', { params: { path: { id: current.meetingId } }, body: current.line }),
      )
      listeners.forEach(tell => tell(current.meetingId, taken))
      takeOut(current)
      pauseMs = 500
    }
  } catch (error) {
    if (error instanceof ProblemError && !error.passing && error.status !== 401 && error.status !== 403) {
      const refused = nextToSend()
      if (refused) refused.refusal = error.message
      keep()
      timer = setTimeout(flush, 0)
    } else {
      timer = setTimeout(flush, pauseMs)
      pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS)
    }
  } finally {
    sending = false
  }
}

addEventListener('online', flush)
if (queue.length > 0) timer = setTimeout(flush, 500)
addEventListener('left-over:owner', () => {
  timer = setTimeout(flush, 500)
})

/** Lines on their way. They are in the browser's storage until the server has them. */
export function useUnsent(meetingId: MaybeRefOrGetter<string>) {
  return {
    unsent: computed(() => queue.filter(entry => isMine(entry) && entry.meetingId === toValue(meetingId))),
    send(line: Schemas['NewLine']) {
      queue.push({ meetingId: toValue(meetingId), line, by: owner.value })
      keep()
      return flush()
    },
    discard: takeOut,
    tryAgain(entry: UnsentLine) {
      entry.refusal = undefined
      keep()
      return flush()
    },
    onTaken(tell: (meetingId: string, line: Schemas['Line']) => void) {
      listeners.add(tell)
      return () => listeners.delete(tell)
    },
  }
}
