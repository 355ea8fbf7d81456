import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas, type Sheet } from '../api/client'
import { useNotice } from './useNotice'
import { useChanged } from './useChanged'

/** Who is asked to one meeting besides those of its series. */
export function useExtras(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const { complain } = useNotice()
  const path = () => ({ id: toValue(id) })
  const show = (sheet: Sheet) => {
    cache.setQueryData(['sheet', sheet.id], sheet)
    changed('extra')
  }
  const asking = useMutation({
    mutationFn: (body: Schemas['Extra']) =>
      dataOf(api.POST('/meetings/{id}/extras', { params: { path: path() }, body })),
    onSuccess: show,
  })
  const removing = useMutation({
    mutationFn: (personId: string) =>
      dataOf(api.DELETE('/meetings/{id}/extras/{personId}', { params: { path: { ...path(), personId } } })),
    onSuccess: show,
    onError: complain,
  })
  return { ask: asking.mutateAsync, askError: asking.error, isAsking: asking.isPending, remove: removing.mutate }
}
