import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { ProblemError } from '../src/api/client'
import { useFaults } from '../src/composables/useFaults'

const refusal = (...pointers: string[]) =>
  new ProblemError(422, { title: 'Refused.', errors: pointers.map(pointer => ({ pointer, detail: `At ${pointer}.` })) })

// No page, so nowhere a hand could be led to.
vi.stubGlobal('document', { activeElement: null })

// Whatever is refused stands at its field or at the foot of the form, and never nowhere.
describe('the faults of a form', () => {
  it.each<[string, Error | null, string | undefined, boolean]>([
    ['nothing', null, undefined, false],
    ['a field that shows its own', refusal('/title'), 'At /title.', false],
    ['a field that is not on the form', refusal('/colour'), undefined, true],
    ['one of each', refusal('/title', '/colour'), 'At /title.', true],
    ['a refusal of the whole', refusal(), undefined, true],
    ['no connection', new TypeError('Failed to fetch'), undefined, true],
  ])('%s', (_, error, atTitle, atFoot) => {
    const { at, rest } = useFaults(ref(error), /^\/title$/)
    expect([at('/title'), rest.value !== null]).toEqual([atTitle, atFoot])
  })

  it('follow the error', () => {
    const error = ref<Error | null>(refusal('/title'))
    const { at, rest } = useFaults(error, /^\/title$/)
    expect(rest.value).toBeNull()
    error.value = refusal()
    expect([at('/title'), rest.value]).toEqual([undefined, error.value])
  })
})
