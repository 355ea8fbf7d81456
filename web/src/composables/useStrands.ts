import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'

/** How many meetings back, which of the closed actions, and whose. */
export interface StrandWish {
  past: string
  closed: 'latest' | 'all' | 'none'
  ownerId?: string
}
export const FIRST_WISH: StrandWish = { past: '11', closed: 'latest' }

/** The picture of what carries over in a series. */
export function useStrands(id: MaybeRefOrGetter<string>, wish: MaybeRefOrGetter<StrandWish>) {
  const reading = useQuery({
    queryKey: computed(() => ['strands', toValue(id), toValue(wish)]),
    placeholderData: (before, query) => (query?.queryKey[1] === toValue(id) ? before : undefined),
    queryFn: () =>
      dataOf(api.GET('/series/{id}/strands', { params: { path: { id: toValue(id) }, query: toValue(wish) } })),
  })
  return { strands: reading.data, error: reading.error }
}

/** The same for each series one runs. */
export function useAllStrands(wish: MaybeRefOrGetter<StrandWish>) {
  const reading = useQuery({
    queryKey: computed(() => ['strands', 'all', toValue(wish)]),
    placeholderData: before => before,
    queryFn: () => dataOf(api.GET('/strands', { params: { query: toValue(wish) } })),
  })
  return {
    series: computed(() => reading.data.value?.series),
    owners: computed(() => reading.data.value?.owners ?? []),
    error: reading.error,
  }
}
