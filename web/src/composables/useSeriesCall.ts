import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { v7 as newKey } from 'uuid'
import { computed, ref, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'
import { useChanged } from './useChanged'

/** The calls of a series: another link, and who was there. */
export function useSeriesCall(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const page = ref(1)
  const reading = useQuery({
    queryKey: computed(() => ['presence', toValue(id), page.value]),
    placeholderData: before => before,
    queryFn: () =>
      dataOf(api.GET('/series/{id}/presence', { params: { path: { id: toValue(id) }, query: { page: page.value } } })),
  })
  const renewing = useMutation({
    mutationFn: ({ renewal, note }: { renewal: number; note: string }) =>
      dataOf(
        api.PUT('/series/{id}/call-renewal', {
          params: { path: { id: toValue(id) } },
          body: { id: newKey(), renewal, note: note || null },
        }),
      ),
    onSuccess: series => {
      cache.setQueryData(['series', series.id], series)
      changed('run')
    },
  })
  return {
    page,
    presence: reading.data,
    error: reading.error,
    renew: renewing.mutateAsync,
    renewError: renewing.error,
    isRenewing: renewing.isPending,
  }
}
