import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import { api, dataOf, Refusal, type Schemas } from './api'

export type Answer = Schemas['GivenAnswer']['answer']

/** What is typed on the page, as it lies in the browser until it has been sent. */
interface Form {
  answers: Record<string, Answer>
  comment: string
  noneSuits: boolean
  accepts: boolean
  suggestions: string[]
  name: string
  email: string
  personId: string
}
const empty = (): Form => ({
  answers: {},
  comment: '',
  noneSuits: false,
  accepts: false,
  suggestions: [],
  name: '',
  email: '',
  personId: '',
})

/** The poll behind a private link, or behind the shared one, which has no `personId`. */
export function usePollPage(link: { id: string; personId?: string; token: string }) {
  const { id, personId, token } = link
  const page = ref<Schemas['PollPage'] | null>(null)
  const error = ref<Refusal | null>(null)
  const isSending = ref(false)
  const sent = ref(false)
  const form = ref(empty())
  /** Where the link was mailed by which an answer is to be confirmed. */
  const address = ref('')
  const draft = `left-over:poll:${location.pathname}`
  let key = newKey()
  let kept = ''

  const ownPath = { params: { path: { id, personId: personId ?? '', token } } }
  const sharedPath = { params: { path: { id, token } } }

  function show(found: Schemas['PollPage']) {
    page.value = found
    const next = {
      ...empty(),
      name: form.value.name,
      answers: Object.fromEntries(found.candidates.map(one => [one.id, one.answer])),
      comment: found.comment ?? '',
      noneSuits: found.noneSuits,
      accepts: found.accepts,
      suggestions: found.suggestions,
    }
    kept = JSON.stringify(next)
    form.value = next
  }

  async function read() {
    error.value = null
    const saved = localStorage.getItem(draft)
    try {
      const found = personId
        ? api.GET('/poll-links/{id}/{personId}/{token}', ownPath)
        : api.GET('/shared-polls/{id}/{token}', sharedPath)
      show(await dataOf(found))
      if (saved) form.value = { ...form.value, ...(JSON.parse(saved) as Form) }
    } catch (fault) {
      error.value = fault as Refusal
    }
  }

  watch(
    form,
    now => {
      sent.value = false
      if (JSON.stringify(now) === kept) localStorage.removeItem(draft)
      else localStorage.setItem(draft, JSON.stringify(now))
    },
    { deep: true, flush: 'sync' },
  )

  function body() {
    const { answers, comment, noneSuits, accepts, suggestions } = form.value
    return {
      answers: page
        .value!.candidates.filter(one => !one.past)
        .map(one => ({ candidateId: one.id, answer: answers[one.id] ?? 'none' })),
      comment: comment.trim() || null,
      noneSuits,
      accepts,
      suggestions,
    }
  }

  /** @returns whether it was taken */
  async function send() {
    isSending.value = true
    error.value = null
    try {
      if (personId) {
        show(await dataOf(api.PUT('/poll-links/{id}/{personId}/{token}', { ...ownPath, body: body() })))
      } else {
        const { name, email, personId: expected } = form.value
        const who = expected ? { personId: expected, email: email || null } : { name, email: email || null }
        const answer = api.POST('/shared-polls/{id}/{token}', { ...sharedPath, body: { id: key, ...who, ...body() } })
        show(await dataOf(answer))
        address.value = expected ? '' : email
        key = newKey()
      }
      localStorage.removeItem(draft)
      sent.value = true
      return true
    } catch (fault) {
      error.value = fault as Refusal
      return false
    } finally {
      isSending.value = false
    }
  }

  const open = computed(() => page.value?.state === 'open')
  read()
  return { page, form, error, isSending, sent, open, address, read, send }
}
