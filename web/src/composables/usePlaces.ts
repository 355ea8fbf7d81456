import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

export type Place = Schemas['Place']

/** Rooms and equipment, and keeping them. */
export function usePlaces() {
  const changed = useChanged()
  const refresh = () => changed('place')
  const reading = useQuery({ queryKey: ['places'], queryFn: () => dataOf(api.GET('/places')) })
  const saving = useMutation({
    mutationFn: ({ id, version, ...body }: Schemas['PlaceWish'] & { id: string; version?: number }) =>
      version === undefined
        ? dataOf(api.POST('/places', { body: { id, ...body } }))
        : dataOf(api.PUT('/places/{id}', { params: { path: { id }, header: ifMatch(version) }, body })),
    onSuccess: refresh,
  })
  const remove = (id: string) => dataOf(api.DELETE('/places/{id}', { params: { path: { id } } })).then(refresh)
  return {
    remove,
    places: computed(() => reading.data.value?.places),
    error: reading.error,
    save: saving.mutateAsync,
    saveError: saving.error,
    isSaving: saving.isPending,
    resetSave: saving.reset,
  }
}

export function usePlace(id: MaybeRefOrGetter<string>) {
  const reading = useQuery({
    queryKey: computed(() => ['place', toValue(id)]),
    queryFn: () => dataOf(api.GET('/places/{id}', { params: { path: { id: toValue(id) } } })),
  })
  return { place: reading.data, error: reading.error }
}

/** Groups, each with everybody in it. */
export function useGroups() {
  const changed = useChanged()
  const refresh = () => changed('group')
  const reading = useQuery({ queryKey: ['groups'], queryFn: () => dataOf(api.GET('/groups')) })
  const saving = useMutation({
    mutationFn: ({ id, version, ...body }: Schemas['GroupWish'] & { id: string; version?: number }) =>
      version === undefined
        ? dataOf(api.POST('/groups', { body: { id, ...body } }))
        : dataOf(api.PUT('/groups/{id}', { params: { path: { id }, header: ifMatch(version) }, body })),
    onSuccess: refresh,
  })
  const removing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/groups/{id}', { params: { path: { id } } })),
    onSuccess: refresh,
  })
  return {
    groups: computed(() => reading.data.value?.groups),
    error: reading.error,
    save: saving.mutateAsync,
    saveError: saving.error,
    isSaving: saving.isPending,
    resetSave: saving.reset,
    remove: removing.mutateAsync,
  }
}
