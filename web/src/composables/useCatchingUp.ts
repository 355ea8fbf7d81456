import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'

/** What somebody has missed of a series since they were last there. */
export function useCatchingUp(id: MaybeRefOrGetter<string>) {
  const reading = useQuery({
    queryKey: computed(() => ['catching-up', toValue(id)]),
    queryFn: () => dataOf(api.GET('/series/{id}/catching-up', { params: { path: { id: toValue(id) } } })),
  })
  return { missed: reading.data, error: reading.error }
}
