import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Sheet = Schemas['Sheet']
export type Topic = Schemas['Topic']
export type Line = Schemas['Line']
export type Action = Schemas['Action']
export type Series = Schemas['Series']
export type Person = Schemas['Person']

/** A refusal by the server (RFC 9457). `code` is stable; switch on it, never on the title. */
export class ProblemError extends Error {
  constructor(readonly status: number, readonly problem: Partial<Schemas['Problem']>) {
    super(problem.title ?? 'The server does not answer as it should. Try again in a moment.')
  }

  get code() { return this.problem.type?.split(':').at(-1) ?? 'unknown' }

  /** The sentence for a field, by its JSON pointer. */
  at(pointer: string) { return this.problem.errors?.find(error => error.pointer === pointer)?.detail }

  /** Whether trying again later may help: nobody answered, or not now. */
  get passing() { return this.status === 0 || this.status >= 500 || this.status === 429 }
}

let csrfToken = ''

export function keepToken(token: string) { csrfToken = token }

/** For what is sent as a form, into a frame. */
export const formToken = () => csrfToken

const protect: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRF-Token', csrfToken)
    return request
  },
  async onResponse({ request, response }) {
    // Signed out elsewhere, or the session ran out: the sign-in page comes up over what is there.
    if (response.status === 401 && !request.url.endsWith('/session')) dispatchEvent(new Event('left-over:signed-out'))
  },
}

export const api = createClient<paths>({ baseUrl: '/api', credentials: 'same-origin' })
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
  if (!result.response.ok) throw new ProblemError(result.response.status, (result.error ?? {}) as Partial<Schemas['Problem']>)
  return result.data as T
}

export const ifMatch = (version: number) => ({ 'If-Match': `"${version}"` })

/** Sends bytes as they are: a piece of a file. @throws ProblemError */
export async function sendBytes(path: string, bytes: Blob) {
  const answer = fetch(`/api${path}`, { method: 'PUT', body: bytes, credentials: 'same-origin', headers: { 'Content-Type': 'application/octet-stream', 'X-CSRF-Token': csrfToken } })
  return dataOf(answer.then(async response => ({ response, data: response.ok ? await response.json() : undefined, error: response.ok ? undefined : await response.json().catch(() => ({})) })))
}
