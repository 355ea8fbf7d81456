import type { Deed, Entry } from '../deeds'

/** Where deeds lie until the server has them: in the browser's storage, each under a key of its own. */
export const STORE = 'left-over:unsent:'
/** What nobody can read any more is not thrown away: somebody may still find in it what was typed. */
const ASIDE = 'left-over:unreadable:'

type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>

/** What an earlier version of this page has left, under the name it has today. */
function named(entry: Entry): Entry {
  const isMove = (entry.deed.kind as string) === 'place'
  return isMove ? { ...entry, deed: { ...entry.deed, kind: 'move' } as Deed } : entry
}

/** @returns null where it is none */
export function readEntry(text: string | null): Entry | null {
  try {
    const found = JSON.parse(text ?? 'null') as Entry | null
    return typeof found?.key === 'string' && typeof found.deed?.kind === 'string' ? named(found) : null
  } catch {
    return null
  }
}

/** All there are, in order. @returns them, and how many could not be read and were laid aside */
export function readAll(store: Store, names: string[]) {
  const entries: Entry[] = []
  let unreadable = 0
  for (const name of names.filter(one => one.startsWith(STORE)).sort()) {
    const text = store.getItem(name)
    const entry = readEntry(text)
    if (entry) entries.push(entry)
    else {
      unreadable += 1
      if (write(store, ASIDE + name.slice(STORE.length), text ?? '')) store.removeItem(name)
    }
  }
  return { entries, unreadable }
}

/** @returns whether it lies there: a full store, or one that is shut, takes nothing */
export const keepEntry = (store: Store, entry: Entry) => write(store, STORE + entry.key, JSON.stringify(entry))

function write(store: Store, name: string, text: string) {
  try {
    store.setItem(name, text)
    return true
  } catch {
    return false
  }
}
