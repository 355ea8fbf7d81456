import { clear, createStore, del, entries, get, set, type UseStore } from 'idb-keyval'
import type { Schemas, Sheet } from './api/client'
import { keepsOffline } from './house'
import { now } from './present'

/**
 * The sheets that were read last, of meetings that are not over, so that they open without a connection; and who is
 * signed in. They belong to that person, and go when somebody signs out.
 */
export interface KeptSheet {
  by: string
  at: number
  sheet: Sheet
}
const MOST = 12
const OPEN = ['planned', 'in_session', 'closed']
const SESSION = 'left-over:session'

let made: UseStore | undefined
const store = () => (made ??= createStore('left-over', 'sheets'))
const name = (by: string, id: string) => `${by}:${id}`

/** A browser that keeps nothing, or has no room, is no fault: the sheet is on the page all the same. */
const quietly = <T>(act: () => Promise<T>) =>
  Promise.resolve()
    .then(act)
    .catch(() => undefined)

export const keepSheet = (by: string, sheet: Sheet) =>
  quietly(async () => {
    if (!keepsOffline) return
    if (!OPEN.includes(sheet.state)) return del(name(by, sheet.id), store())
    await set(name(by, sheet.id), { by, at: now(), sheet } satisfies KeptSheet, store())
    const all = await entries<string, KeptSheet>(store())
    const old = all.sort((a, b) => b[1].at - a[1].at).slice(MOST)
    await Promise.all(old.map(([key]) => del(key, store())))
  })

export const keptSheet = (by: string, id: string) => quietly(() => get<KeptSheet>(name(by, id), store()))

/** What may not be done without the server is not offered. */
export const asKept = ({ sheet, at }: KeptSheet): Sheet & { keptAt: number } => ({
  ...sheet,
  keptAt: at,
  may: { ...sheet.may, bringTopic: false, nameDeputy: false },
})

/** @param session null: nobody is signed in any more */
export function keepSession(session: Schemas['Session'] | null) {
  try {
    if (session?.person && keepsOffline)
      return localStorage.setItem(SESSION, JSON.stringify({ ...session, csrfToken: '' }))
    localStorage.removeItem(SESSION)
  } catch {
    /* as above */
  }
  return session?.person ? undefined : quietly(() => clear(store()))
}

export function keptSession(): Schemas['Session'] | null {
  try {
    return JSON.parse(localStorage.getItem(SESSION) ?? 'null') as Schemas['Session'] | null
  } catch {
    return null
  }
}
