import type { Schemas } from './api/client'

/** The online side of a meeting, as a form holds it. */
export interface CallForm {
  kind: Schemas['CallKind']
  url: string
  passcode: string
  dialIn: string
  dial: boolean
}

/** What the server takes. */
export const callOf = ({ kind, url, passcode, dialIn, dial }: CallForm): Schemas['CallWish'] =>
  kind === 'own' ? { kind, url: url || null, passcode: passcode || null, dialIn: dialIn || null } : { kind, dial }

/** @param call as it stands; one made here says nothing of its link in a form */
export function callForm(call: Schemas['Call'] | null | undefined, kind?: Schemas['CallKind'], dial = false): CallForm {
  const own = call && (call.ours ?? null) === null ? call : null
  return {
    kind: kind ?? (own ? 'own' : 'none'),
    url: own?.url ?? '',
    passcode: own?.passcode ?? '',
    dialIn: own?.dialIn ?? '',
    dial,
  }
}

export const USUAL_DOOR: Schemas['Door'] = {
  policy: 'members',
  opensMin: 15,
  staysMin: 30,
  quiet: false,
  presents: 'everybody',
  records: false,
}

/** Who walks in and who waits, in words. */
export const DOORS: Record<Schemas['Door']['policy'], string> = {
  everybody: 'Everybody walks in',
  members: 'Those of the series walk in, others wait',
  host: 'All wait until the keeper or chair is there',
  known: 'Only who has a link of their own',
}

export const isOurs = (kind: Schemas['CallKind']) => kind === 'standing' || kind === 'fresh'

/** The words to copy for somebody who has no link of their own. */
export const plainWords = (title: string, when: string, plain: Schemas['Call']) =>
  [
    title,
    when,
    plain.url,
    plain.passcode ? `Passcode ${plain.passcode}` : '',
    plain.dialIn ? `Or dial ${plain.dialIn}` : '',
  ]
    .filter(Boolean)
    .join('\n')
