import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

export type AnswerTable = Schemas['AnswerTable']

/** Who comes to the meetings of a series. */
export function useAnswers(seriesId: MaybeRefOrGetter<string>) {
  const reading = useQuery({
    queryKey: computed(() => ['answers', toValue(seriesId)]),
    refetchInterval: 15_000,
    queryFn: () => dataOf(api.GET('/series/{id}/answers', { params: { path: { id: toValue(seriesId) } } })),
  })
  return { table: reading.data, error: reading.error }
}

/** What the keeper does about who comes. */
export function useAnswerDeeds(seriesId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const key = computed(() => ['answers', toValue(seriesId)])
  const changed = useChanged()
  const refresh = () => changed('answer')
  const settling = useMutation({
    mutationFn: ({ id, take }: { id: string; take: boolean }) =>
      dataOf(api.PUT('/offered-times/{id}', { params: { path: { id } }, body: { take } })),
    onSuccess: table => {
      cache.setQueryData(key.value, table)
      refresh()
    },
  })
  const reminding = useMutation({
    mutationFn: ({ meetingId, id }: { meetingId: string; id: string }) =>
      dataOf(api.POST('/meetings/{id}/reminders', { params: { path: { id: meetingId } }, body: { id } })),
    onSuccess: refresh,
  })
  const answering = useMutation({
    mutationFn: ({ meetingId, personId, ...body }: Schemas['Answer'] & { meetingId: string; personId: string }) =>
      dataOf(api.PUT('/meetings/{id}/answers/{personId}', { params: { path: { id: meetingId, personId } }, body })),
    onSuccess: refresh,
  })
  const setting = useMutation({
    mutationFn: ({ meetingId, ...body }: Schemas['MeetingOptions'] & { meetingId: string }) =>
      dataOf(api.PUT('/meetings/{id}/options', { params: { path: { id: meetingId } }, body })),
    onSuccess: table => {
      cache.setQueryData(key.value, table)
      refresh()
    },
  })
  const dismissing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/incoming-mails/{id}', { params: { path: { id } } })),
    onSuccess: refresh,
  })
  return {
    settle: settling.mutateAsync,
    remind: reminding.mutateAsync,
    answer: answering.mutateAsync,
    dismiss: dismissing.mutate,
    setOptions: setting.mutateAsync,
    optionsError: setting.error,
    isSetting: setting.isPending,
  }
}

export function useHistory(seriesId: MaybeRefOrGetter<string>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['history', toValue(seriesId)]),
    initialPageParam: 1,
    getNextPageParam: (last: Schemas['History']) =>
      last.page * last.pageSize < last.total ? last.page + 1 : undefined,
    queryFn: ({ pageParam }) =>
      dataOf(
        api.GET('/series/{id}/history', { params: { path: { id: toValue(seriesId) }, query: { page: pageParam } } }),
      ),
  })
  return {
    events: computed(() => reading.data.value?.pages.flatMap(page => page.events)),
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** Each mail of a series and what became of it, newest first. */
export function useMails(seriesId: MaybeRefOrGetter<string>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['mails', toValue(seriesId)]),
    initialPageParam: 1,
    getNextPageParam: (last: Schemas['Mails']) => (last.page * last.pageSize < last.total ? last.page + 1 : undefined),
    queryFn: ({ pageParam }) =>
      dataOf(
        api.GET('/series/{id}/mails', { params: { path: { id: toValue(seriesId) }, query: { page: pageParam } } }),
      ),
  })
  return {
    mails: computed(() => reading.data.value?.pages.flatMap(page => page.mails)),
    total: computed(() => reading.data.value?.pages[0]?.total),
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** Another rule or time for a series, and calling off what is later. */
export function useRunChange(seriesId: MaybeRefOrGetter<string>) {
  const path = () => ({ path: { id: toValue(seriesId) } })
  const changed = useChanged()
  const refresh = () => changed('run')
  const changing = useMutation({
    mutationFn: ({ version, ...body }: Schemas['RunChange'] & { version: number }) =>
      dataOf(api.PUT('/series/{id}/run', { params: { ...path(), header: ifMatch(version) }, body })),
    onSuccess: refresh,
  })
  const callingOff = useMutation({
    mutationFn: (body: Schemas['CallingOff']) => dataOf(api.POST('/series/{id}/calling-off', { params: path(), body })),
    onSuccess: refresh,
  })
  const bringing = useMutation({
    mutationFn: () => dataOf(api.DELETE('/series/{id}/calling-off', { params: path() })),
    onSuccess: refresh,
  })
  return {
    change: changing.mutateAsync,
    changeError: changing.error,
    isChanging: changing.isPending,
    callOff: callingOff.mutateAsync,
    callOffError: callingOff.error,
    isCallingOff: callingOff.isPending,
    bringBack: bringing.mutateAsync,
    reset: () => {
      changing.reset()
      callingOff.reset()
    },
  }
}

/** What an invited person sees by their private link, and how they answer. */
export function useAnswerLink(path: () => { id: string; personId: string; token: string }) {
  const cache = useQueryClient()
  const key = ['answer-link', path().id, path().personId]
  const at = () => ({ params: { path: path() } })
  const reading = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET('/answer-links/{id}/{personId}/{token}', at())),
    retry: false,
  })
  const show = (link: Schemas['AnswerLink']) => cache.setQueryData(key, link)
  const answering = useMutation({
    mutationFn: (body: Schemas['LinkAnswer']) =>
      dataOf(api.PUT('/answer-links/{id}/{personId}/{token}', { ...at(), body })),
    onSuccess: show,
  })
  const offering = useMutation({
    mutationFn: (body: Schemas['LinkOffer']) =>
      dataOf(api.POST('/answer-links/{id}/{personId}/{token}/offers', { ...at(), body })),
    onSuccess: show,
  })
  const passing = useMutation({
    mutationFn: (body: Schemas['LinkSubstitute']) =>
      dataOf(api.POST('/answer-links/{id}/{personId}/{token}/substitutes', { ...at(), body })),
    onSuccess: show,
  })
  const feeding = useMutation({
    mutationFn: () => dataOf(api.POST('/answer-links/{id}/{personId}/{token}/feed', at())),
  })
  return {
    readAgain: reading.refetch,
    isReading: reading.isFetching,
    mailFeed: feeding.mutateAsync,
    isFeeding: feeding.isPending,
    pass: passing.mutateAsync,
    passError: passing.error,
    isPassing: passing.isPending,
    link: reading.data,
    error: reading.error,
    answer: answering.mutateAsync,
    isAnswering: answering.isPending,
    answerError: answering.error,
    offer: offering.mutateAsync,
    offerError: offering.error,
    isOffering: offering.isPending,
  }
}

/** Another address for a guest whom mail does not reach; the last mail goes once more. */
export function useCorrectAddress() {
  const changed = useChanged()
  const correcting = useMutation({
    mutationFn: ({ seriesId, personId, email }: { seriesId: string; personId: string; email: string }) =>
      dataOf(
        api.PUT('/series/{id}/addresses/{personId}', { params: { path: { id: seriesId, personId } }, body: { email } }),
      ),
    onSuccess: () => changed('address'),
  })
  return { correct: correcting.mutateAsync, error: correcting.error, isCorrecting: correcting.isPending }
}

/** For the admin: mail nobody could read. */
export function useIncomingMails(enabled: MaybeRefOrGetter<boolean>) {
  const changed = useChanged()
  const reading = useQuery({
    queryKey: ['incoming-mails'],
    enabled: computed(() => toValue(enabled)),
    queryFn: () => dataOf(api.GET('/incoming-mails')),
  })
  const dismissing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/incoming-mails/{id}', { params: { path: { id } } })),
    onSuccess: () => changed('incomingMail'),
  })
  return { mails: computed(() => reading.data.value?.mails ?? []), dismiss: dismissing.mutate }
}

/** How a rule would suit people, before the series is made. */
export function useNewRunCheck(wish: MaybeRefOrGetter<Schemas['NewRunCheck'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['run-check', 'new', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(api.POST('/runs/check', { body: toValue(wish)!, signal })),
  })
  return { check: computed(() => (toValue(wish) ? reading.data.value : undefined)) }
}

/** How another rule or time would suit everyone's calendars; asked once the form stands still. */
export function useRunCheck(seriesId: MaybeRefOrGetter<string>, wish: MaybeRefOrGetter<Schemas['RunWish'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['run-check', toValue(seriesId), toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(
        api.POST('/series/{id}/run/check', {
          params: { path: { id: toValue(seriesId) } },
          body: toValue(wish)!,
          signal,
        }),
      ),
  })
  return { check: reading.data }
}
