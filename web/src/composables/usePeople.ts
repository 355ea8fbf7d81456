import { useInfiniteQuery, useMutation, useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** Everybody here; all pages are read, for choosing from. */
export function usePeople() {
  const reading = useInfiniteQuery({
    queryKey: ['people'],
    queryFn: ({ pageParam }) => dataOf(api.GET('/people', { params: { query: { page: pageParam } } })),
    initialPageParam: 1,
    getNextPageParam: last => (last.page * last.pageSize < last.total ? last.page + 1 : undefined),
  })
  watch(
    () => reading.hasNextPage.value && !reading.isFetchingNextPage.value,
    more => {
      if (more) reading.fetchNextPage()
    },
    { immediate: true },
  )
  const changed = useChanged()
  const refresh = () => changed('person')
  const adding = useMutation({
    mutationFn: (body: Schemas['NewPerson']) => dataOf(api.POST('/people', { body })),
    onSuccess: refresh,
  })
  const changing = useMutation({
    mutationFn: ({ id, version, ...body }: Schemas['ChangedPerson'] & { id: string; version: number }) =>
      dataOf(api.PUT('/people/{id}', { params: { path: { id }, header: ifMatch(version) }, body })),
    onSuccess: refresh,
  })
  return {
    people: computed(() => reading.data.value?.pages.flatMap(page => page.people)),
    error: reading.error,
    add: adding.mutateAsync,
    change: changing.mutateAsync,
    saveError: computed(() => adding.error.value ?? changing.error.value),
    isSaving: computed(() => adding.isPending.value || changing.isPending.value),
    resetErrors: () => {
      adding.reset()
      changing.reset()
    },
  }
}

export function useTimeZones() {
  const reading = useQuery({
    queryKey: ['time-zones'],
    queryFn: () => dataOf(api.GET('/time-zones')),
    staleTime: Infinity,
  })
  return computed(() => reading.data.value?.timeZones ?? [])
}
