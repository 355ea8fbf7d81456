import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** The polls one keeps. */
export function useTimePolls() {
  const reading = useQuery({ queryKey: ['polls', 'list'], queryFn: () => dataOf(api.GET('/time-polls')) })
  return { polls: computed(() => reading.data.value?.polls), error: reading.error }
}

/** Puts times to people. */
export function useAsking() {
  const cache = useQueryClient()
  const changed = useChanged()
  const asking = useMutation({
    mutationFn: (body: Schemas['NewTimePoll']) => dataOf(api.POST('/time-polls', { body })),
    onSuccess: poll => {
      cache.setQueryData(['polls', poll.id], poll)
      changed('poll')
    },
  })
  return { ask: asking.mutateAsync, askError: asking.error, isAsking: asking.isPending }
}

/** What is known of everybody at some times; null asks nothing. */
export function useCandidateCheck(wish: MaybeRefOrGetter<Schemas['CandidateCheck'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['common-time', 'candidates', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(api.POST('/candidate-checks', { body: toValue(wish)!, signal })),
  })
  return { checked: computed(() => new Map(reading.data.value?.times.map(one => [one.startsAt, one]))) }
}

/** Times as somebody has pasted them. */
export function useReadDates() {
  const reading = useMutation({
    mutationFn: (body: Schemas['PastedDates']) => dataOf(api.POST('/dates-read', { body })),
  })
  return { readDates: reading.mutateAsync, readError: reading.error, isReading: reading.isPending }
}

/** One poll, as whoever keeps it sees it, and all they can do with it. */
export function usePoll(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const params = () => ({ params: { path: { id: toValue(id) } } })
  const reading = useQuery({
    queryKey: computed(() => ['polls', toValue(id)]),
    queryFn: () => dataOf(api.GET('/time-polls/{id}', params())),
    refetchInterval: 15_000,
  })
  /** A deed that answers with the poll as it is then. */
  const deed = <B>(send: (body: B) => Promise<Schemas['TimePoll']>) => {
    const doing = useMutation({
      mutationFn: send,
      onSuccess: poll => {
        cache.setQueryData(['polls', poll.id], poll)
        changed('poll')
      },
    })
    return { run: doing.mutateAsync, error: doing.error, busy: doing.isPending, reset: doing.reset }
  }
  const seen = useMutation({ mutationFn: () => dataOf(api.PUT('/time-polls/{id}/seen', params())) })
  return {
    poll: reading.data,
    error: reading.error,
    noteSeen: seen.mutate,
    change: deed(({ version, ...body }: Schemas['ChangedTimePoll'] & { version: number }) =>
      dataOf(api.PUT('/time-polls/{id}', { params: { path: { id: toValue(id) }, header: ifMatch(version) }, body })),
    ),
    setTimes: deed((body: Schemas['Candidates']) =>
      dataOf(api.PUT('/time-polls/{id}/candidates', { ...params(), body })),
    ),
    setPeople: deed((body: Schemas['PollPeople']) => dataOf(api.PUT('/time-polls/{id}/people', { ...params(), body }))),
    enter: deed(({ personId, ...body }: Schemas['EnteredPollAnswer'] & { personId: string }) =>
      dataOf(
        api.PUT('/time-polls/{id}/people/{personId}/answer', { params: { path: { id: toValue(id), personId } }, body }),
      ),
    ),
    takeAddress: deed((personId: string) =>
      dataOf(
        api.PUT('/time-polls/{id}/people/{personId}/address', { params: { path: { id: toValue(id), personId } } }),
      ),
    ),
    share: deed((body: Schemas['PollSharing']) =>
      dataOf(api.PUT('/time-polls/{id}/shared-link', { ...params(), body })),
    ),
    remind: deed(() => dataOf(api.POST('/time-polls/{id}/reminders', params()))),
    close: deed((body: Schemas['PollClosing']) => dataOf(api.POST('/time-polls/{id}/closing', { ...params(), body }))),
    settle: deed((body: Schemas['PollSettlement']) =>
      dataOf(api.PUT('/time-polls/{id}/settlement', { ...params(), body })),
    ),
    openAgain: deed(() => dataOf(api.DELETE('/time-polls/{id}/settlement', params()))),
  }
}
