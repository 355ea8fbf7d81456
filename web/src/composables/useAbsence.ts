import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** Days somebody is away: what falls into them, and keeping them. */
export function useAbsence(id: () => string, days: () => { fromDay: string; untilDay: string } | null) {
  const cache = useQueryClient()
  const changed = useChanged()
  const path = () => ({ path: { id: id() } })
  const reading = useQuery({
    queryKey: computed(() => ['absence', id(), days()]),
    enabled: computed(() => !!days()),
    queryFn: () => dataOf(api.GET('/people/{id}/absence', { params: { ...path(), query: days()! } })),
    retry: false,
  })
  const keeping = useMutation({
    mutationFn: (body: Schemas['NewAbsence']) => dataOf(api.PUT('/people/{id}/absence', { params: path(), body })),
    onSuccess: person => {
      cache.setQueryData(['person', person.id], person)
      cache.invalidateQueries({ queryKey: ['absence'] })
      changed('hours')
      changed('answer')
    },
  })
  return {
    preview: reading.data,
    previewError: reading.error,
    keep: keeping.mutateAsync,
    error: keeping.error,
    isKeeping: keeping.isPending,
  }
}
