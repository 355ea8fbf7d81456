import createClient, { type Middleware } from 'openapi-fetch'
import { heardFrom } from '../present'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Sheet = Schemas['Sheet']
export type Topic = Schemas['Topic']
export type Line = Schemas['Line']
export type Action = Schemas['Action']
export type Series = Schemas['Series']
export type Person = Schemas['Person']

/** "/run/lengthMin" → "Length min" */
export function fieldName(pointer: string) {
  const words = (
    pointer
      .split('/')
      .filter(part => !/^\d*$/.test(part))
      .at(-1) ?? ''
  )
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** What is wrong, in its own words: that a field has the wrong shape says nothing without the field. */
function sentenceOf(problem: Partial<Schemas['Problem']>) {
  if (problem.type?.endsWith(':shape') && problem.errors?.length)
    return problem.errors.map(fault => `${fieldName(fault.pointer)}: ${fault.detail}`).join(' ')
  return problem.title ?? 'The server does not answer as it should. Try again in a moment.'
}

/** A refusal by the server (RFC 9457). `code` is stable; switch on it, never on the title. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Partial<Schemas['Problem']>,
  ) {
    super(sentenceOf(problem))
  }

  get code() {
    return this.problem.type?.split(':').at(-1) ?? 'unknown'
  }

  /** The sentence for a field, by its JSON pointer. */
  at(pointer: string) {
    return this.problem.errors?.find(error => error.pointer === pointer)?.detail
  }

  /** Whether trying again later may help: nobody answered, or not now. */
  get passing() {
    return this.status === 0 || this.status >= 500 || this.status === 429
  }
}

/**
 * What no field of a form says by itself, for the foot of the form: nothing where each fault has its field.
 * @param fields the pointers of the fields that show theirs
 */
export function unsaid(error: Error | null | undefined, fields: RegExp) {
  if (!error) return null
  const faults = error instanceof ProblemError ? (error.problem.errors ?? []) : []
  return faults.length && faults.every(fault => fields.test(fault.pointer)) ? null : error
}

let csrfToken = ''

export function keepToken(token: string) {
  csrfToken = token
}

/** For what is sent as a form, into a frame. */
export const formToken = () => csrfToken

/**
 * A write that was refused for want of a sign-in waits until somebody has signed in again over the page, and then goes
 * once more: what was typed stays where it is. Whoever looks after the page sets this. @returns whether to try again
 */
let signInAgain: (() => Promise<boolean>) | null = null
export function onSignedOut(ask: typeof signInAgain) {
  signInAgain = ask
}

async function patientFetch(request: Request): Promise<Response> {
  const again = request.clone()
  // What is removed may be removed because one leaves the page: that goes on without it.
  const response = await fetch(request.method === 'DELETE' ? new Request(request, { keepalive: true }) : request)
  if (!signInAgain || request.url.endsWith('/session') || !(await isSignedOut(response))) return response
  if (!(await signInAgain())) return response
  if (again.method !== 'GET') again.headers.set('X-CSRF-Token', csrfToken)
  return fetch(again)
}

/** Nobody is signed in, or somebody has signed in elsewhere in this browser since. */
async function isSignedOut(response: Response) {
  if (response.status === 401) return true
  if (response.status !== 403) return false
  const problem = (await response
    .clone()
    .json()
    .catch(() => ({}))) as Partial<Schemas['Problem']>
  return problem.type?.endsWith(':token') ?? false
}

const protect: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRF-Token', csrfToken)
    return request
  },
  onResponse({ response }) {
    heardFrom(response.headers.get('date'))
  },
}

export const api = createClient<paths>({ baseUrl: '/api', credentials: 'same-origin', fetch: patientFetch })
api.use(protect)

/**
 * The data of an answer. @throws ProblemError when it was refused or nobody answered
 */
export async function dataOf<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await answer
  } catch {
    throw new ProblemError(0, { title: 'No connection just now. What you typed is kept here.' })
  }
  if (!result.response.ok)
    throw new ProblemError(result.response.status, (result.error ?? {}) as Partial<Schemas['Problem']>)
  return result.data as T
}

export const ifMatch = (version: number) => ({ 'If-Match': `"${version}"` })

/** Sends bytes as they are: a piece of a file. @throws ProblemError */
export async function sendBytes(path: string, bytes: Blob) {
  const answer = patientFetch(
    new Request(`/api${path}`, {
      method: 'PUT',
      body: bytes,
      credentials: 'same-origin',
      headers: { 'Content-Type': 'application/octet-stream', 'X-CSRF-Token': csrfToken },
    }),
  )
  return dataOf(
    answer.then(async response => ({
      response,
      data: response.ok ? await response.json() : undefined,
      error: response.ok ? undefined : await response.json().catch(() => ({})),
    })),
  )
}
