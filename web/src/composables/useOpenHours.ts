import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** Open hours one keeps or is a host of. */
export function useOpenHoursList() {
  const reading = useQuery({ queryKey: ['open-hours', 'list'], queryFn: () => dataOf(api.GET('/open-hours')) })
  return { list: reading.data, error: reading.error }
}

/** Being a host, of one's own open hours or of others'. */
export function useHosting() {
  const cache = useQueryClient()
  const changed = useChanged()
  const show = (list: Schemas['OpenHoursList']) => {
    cache.setQueryData(['open-hours', 'list'], list)
    changed('openHours')
  }
  const agreeing = useMutation({
    mutationFn: ({ id, ...body }: Schemas['HostingWish'] & { id: string }) =>
      dataOf(api.PUT('/hostings/{id}', { params: { path: { id } }, body })),
    onSuccess: show,
  })
  const leaving = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/hostings/{id}', { params: { path: { id } } })),
    onSuccess: show,
  })
  return { agree: agreeing.mutateAsync, leave: leaving.mutateAsync }
}

/** Makes open hours, or changes those with this key. */
export function useOpenHours(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const params = () => ({ params: { path: { id: toValue(id) } } })
  const reading = useQuery({
    queryKey: computed(() => ['open-hours', toValue(id)]),
    enabled: computed(() => toValue(id) !== ''),
    queryFn: () => dataOf(api.GET('/open-hours/{id}', params())),
  })
  const show = (open: Schemas['OpenHours']) => {
    cache.setQueryData(['open-hours', open.id], open)
    changed('openHours')
  }
  const making = useMutation({
    mutationFn: (body: Schemas['NewOpenHours']) => dataOf(api.POST('/open-hours', { body })),
    onSuccess: show,
  })
  const changing = useMutation({
    mutationFn: ({ version, ...body }: Schemas['ChangedOpenHours'] & { version: number }) =>
      dataOf(api.PUT('/open-hours/{id}', { params: { path: { id: toValue(id) }, header: ifMatch(version) }, body })),
    onSuccess: show,
  })
  const renewing = useMutation({
    mutationFn: () => dataOf(api.POST('/open-hours/{id}/link', params())),
    onSuccess: show,
  })
  const removing = useMutation({
    mutationFn: () => dataOf(api.DELETE('/open-hours/{id}', params())),
    onSuccess: () => {
      cache.removeQueries({ queryKey: ['open-hours', toValue(id)] })
      changed('openHours')
    },
  })
  return {
    open: reading.data,
    error: reading.error,
    make: making.mutateAsync,
    change: changing.mutateAsync,
    saveError: computed(() => making.error.value ?? changing.error.value),
    isSaving: computed(() => making.isPending.value || changing.isPending.value),
    renew: renewing.mutateAsync,
    remove: removing.mutateAsync,
  }
}
