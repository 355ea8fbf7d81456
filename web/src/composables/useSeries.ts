import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

const nextPage = (last: { page: number; pageSize: number; total: number }) =>
  last.page * last.pageSize < last.total ? last.page + 1 : undefined

/** All series I take part in. */
export function useSeriesList() {
  const reading = useInfiniteQuery({
    queryKey: ['series', 'list'],
    queryFn: ({ pageParam }) => dataOf(api.GET('/series', { params: { query: { page: pageParam } } })),
    initialPageParam: 1,
    getNextPageParam: nextPage,
  })
  return {
    series: computed(() => reading.data.value?.pages.flatMap(page => page.series)),
    error: reading.error,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** One series, kept fresh, and changing it. */
export function useSeries(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const path = () => ({ id: toValue(id) })
  const reading = useQuery({
    queryKey: computed(() => ['series', toValue(id)]),
    enabled: computed(() => toValue(id) !== ''),
    queryFn: () => dataOf(api.GET('/series/{id}', { params: { path: path() } })),
    // While a call is being made.
    refetchInterval: query => (query.state.data?.callHere?.makingSince ? 2_000 : false),
  })
  const changing = useMutation({
    mutationFn: ({ version, ...body }: Schemas['ChangedSeries'] & { version: number }) =>
      dataOf(api.PUT('/series/{id}', { params: { path: path(), header: ifMatch(version) }, body })),
    onSuccess: series => {
      cache.setQueryData(['series', series.id], series)
      cache.invalidateQueries({ queryKey: ['series', 'list'] })
    },
  })
  return {
    series: reading.data,
    error: reading.error,
    change: changing.mutateAsync,
    changeError: changing.error,
    isChanging: changing.isPending,
    resetChange: changing.reset,
  }
}

/** What nobody, or not everybody, has been told of a series yet; null where there is nothing. */
export function useUntold(id: MaybeRefOrGetter<string>, wanted: MaybeRefOrGetter<boolean>) {
  const reading = useQuery({
    queryKey: computed(() => ['untold', toValue(id)]),
    enabled: computed(() => toValue(wanted)),
    queryFn: () => dataOf(api.GET('/series/{id}/untold', { params: { path: { id: toValue(id) } } })),
  })
  return { untold: computed(() => reading.data.value?.untold ?? null) }
}

/** Only one that nobody has been told of and nothing was done in. */
export function useDeleteSeries() {
  const cache = useQueryClient()
  const changed = useChanged()
  const removing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/series/{id}', { params: { path: { id } } })),
    onSuccess: (_, id) => {
      cache.removeQueries({ queryKey: ['series', id] })
      changed('series')
    },
  })
  return { remove: removing.mutateAsync }
}

/** What a series has decided. */
export function useDecisions(id: MaybeRefOrGetter<string>) {
  const reading = useQuery({
    queryKey: computed(() => ['decisions', toValue(id)]),
    queryFn: () => dataOf(api.GET('/series/{id}/decisions', { params: { path: { id: toValue(id) } } })),
  })
  return { decisions: computed(() => reading.data.value?.decisions), error: reading.error }
}

/** The meetings of a series: to come, or gone. */
export function useMeetings(id: MaybeRefOrGetter<string>, gone: boolean) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['meetings', toValue(id), gone]),
    queryFn: ({ pageParam }) =>
      dataOf(
        api.GET('/series/{id}/meetings', {
          params: { path: { id: toValue(id) }, query: { gone: gone ? 'true' : 'false', page: pageParam } },
        }),
      ),
    initialPageParam: 1,
    getNextPageParam: nextPage,
  })
  return {
    meetings: computed(() => reading.data.value?.pages.flatMap(page => page.meetings)),
    total: computed(() => reading.data.value?.pages[0]?.total ?? 0),
    error: reading.error,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** What a rule means, read back while it is filled in; null asks nothing. */
export function useRunPreview(wish: MaybeRefOrGetter<Schemas['RunWish'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['run', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    retry: false,
    staleTime: 60_000,
    queryFn: () => dataOf(api.POST('/runs/preview', { body: toValue(wish)! })),
    placeholderData: before => before,
  })
  return { preview: reading.data, error: reading.error, isReading: reading.isFetching }
}

export function useCreateSeries() {
  const cache = useQueryClient()
  const creating = useMutation({
    mutationFn: (body: Schemas['NewSeries']) => dataOf(api.POST('/series', { body })),
    onSuccess: series => {
      cache.setQueryData(['series', series.id], series)
      cache.invalidateQueries({ queryKey: ['series', 'list'] })
      cache.invalidateQueries({ queryKey: ['desk'] })
    },
  })
  return { create: creating.mutateAsync, error: creating.error, isCreating: creating.isPending }
}

/** The invitation of a series: who gets what, sending it, and how far that has come. */
export function useInvitation(
  id: MaybeRefOrGetter<string>,
  note: MaybeRefOrGetter<string>,
  open: MaybeRefOrGetter<boolean>,
  whose: MaybeRefOrGetter<string | undefined>,
) {
  const changed = useChanged()
  const path = () => ({ id: toValue(id) })
  const reading = useQuery({
    queryKey: computed(() => ['invitation', toValue(id), toValue(note), toValue(whose)]),
    enabled: computed(() => toValue(open)),
    staleTime: 0,
    queryFn: () =>
      dataOf(
        api.POST('/series/{id}/invitation', {
          params: { path: path() },
          body: { note: toValue(note) || null, ...(toValue(whose) ? { personId: toValue(whose) } : {}) },
        }),
      ),
    placeholderData: before => before,
  })
  const sending = useMutation({
    mutationFn: (key: string) =>
      dataOf(
        api.POST('/series/{id}/sendings', { params: { path: path() }, body: { id: key, note: toValue(note) || null } }),
      ),
    onSuccess: () => changed('told'),
  })
  const progress = useQuery({
    queryKey: computed(() => ['sending', sending.data.value?.id]),
    enabled: computed(() => sending.data.value !== undefined),
    queryFn: () =>
      dataOf(
        api.GET('/series/{id}/sendings/{sendingId}', {
          params: { path: { ...path(), sendingId: sending.data.value!.id } },
        }),
      ),
    refetchInterval: query => (query.state.data && query.state.data.waiting === query.state.data.held ? false : 500),
  })
  return {
    preview: reading.data,
    error: computed(() => sending.error.value ?? reading.error.value),
    send: sending.mutate,
    isSending: sending.isPending,
    sent: computed(() => progress.data.value ?? sending.data.value),
    reset: sending.reset,
  }
}
