import createClient from 'openapi-fetch'
import type { components, paths } from '../api/schema'
import { heardFrom } from '../present'

export type Schemas = components['schemas']

/** Without cookies: the address of the page is what lets one in. */
export const api = createClient<paths>({ baseUrl: '/api', credentials: 'omit' })
api.use({
  onResponse({ response }) {
    heardFrom(response.headers.get('date'))
  },
})

/** A refusal, in words, with what is wrong at which field. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly problem: Partial<Schemas['Problem']>,
  ) {
    super(problem.title ?? 'The server does not answer as it should. Try again in a moment.')
  }

  get code() {
    return this.problem.type?.split(':').at(-1) ?? 'unknown'
  }

  at(pointer: string) {
    return this.problem.errors?.find(fault => fault.pointer === pointer)?.detail
  }
}

/** @throws Refusal when it was refused or nobody answered */
export async function dataOf<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await answer
  } catch {
    throw new Refusal(0, {
      title: 'No connection just now. What you have entered is kept here; try again in a moment.',
    })
  }
  if (!result.response.ok)
    throw new Refusal(result.response.status, (result.error ?? {}) as Partial<Schemas['Problem']>)
  return result.data as T
}
