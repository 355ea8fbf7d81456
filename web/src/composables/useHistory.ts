import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'

/** What was done in a series, newest first. */
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
