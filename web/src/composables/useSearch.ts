import { useInfiniteQuery, useMutation } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'
import type { paths } from '../api/schema'
import { useChanged } from './useChanged'
import { useNotice } from './useNotice'

export interface SearchWish {
  query: string
  kind?: NonNullable<paths['/search']['get']['parameters']['query']>['kind']
  seriesId?: string
}

/** What has certain words in it, page by page. */
export function useSearch(wish: MaybeRefOrGetter<SearchWish>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['search', toValue(wish)]),
    queryFn: ({ pageParam }) =>
      dataOf(api.GET('/search', { params: { query: { ...toValue(wish), page: pageParam } } })),
    initialPageParam: 1,
    placeholderData: before => before,
    getNextPageParam: last => (last.more ? last.page + 1 : undefined),
  })
  return {
    hits: computed(() => reading.data.value?.pages.flatMap(page => page.hits)),
    series: computed(() => reading.data.value?.pages[0]?.series ?? []),
    people: computed(() => reading.data.value?.pages[0]?.people ?? []),
    error: reading.error,
    isSearching: reading.isFetching,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** The register of decisions over all series. */
export function useAllDecisions(wish: MaybeRefOrGetter<{ query: string; seriesId?: string }>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['decisions', 'all', toValue(wish)]),
    queryFn: ({ pageParam }) =>
      dataOf(api.GET('/decisions', { params: { query: { ...toValue(wish), page: pageParam } } })),
    initialPageParam: 1,
    placeholderData: before => before,
    getNextPageParam: last => (last.page * last.pageSize < last.total ? last.page + 1 : undefined),
  })
  const first = computed(() => reading.data.value?.pages[0])
  return {
    decisions: computed(() => reading.data.value?.pages.flatMap(page => page.decisions)),
    total: computed(() => first.value?.total ?? 0),
    series: computed(() => first.value?.series ?? []),
    error: reading.error,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** A decision that a later one has taken the place of. */
export function useSuperseding() {
  const changed = useChanged()
  const { complain } = useNotice()
  const setting = useMutation({
    mutationFn: ({ lineId, byLineId }: { lineId: string; byLineId: string | null }) =>
      dataOf(api.PUT('/lines/{id}/superseding', { params: { path: { id: lineId } }, body: { byLineId } })),
    onSuccess: () => changed('sheet'),
    onError: complain,
  })
  return { supersede: setting.mutate }
}
