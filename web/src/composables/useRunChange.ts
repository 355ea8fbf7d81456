import { keepPreviousData, useMutation, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** Another rule or time for a series, and calling off what is later. */
export function useRunChange(seriesId: MaybeRefOrGetter<string>) {
  const path = () => ({ path: { id: toValue(seriesId) } })
  const changed = useChanged()
  const refresh = () => changed('run')
  const changing = useMutation({
    mutationFn: ({ version, ...body }: Schemas['RunChange'] & { version: number }) =>
      dataOf(api.PUT('/series/{id}/run', { params: { ...path(), header: ifMatch(version) }, body })),
    onSuccess: refresh,
  })
  const callingOff = useMutation({
    mutationFn: (body: Schemas['CallingOff']) => dataOf(api.POST('/series/{id}/calling-off', { params: path(), body })),
    onSuccess: refresh,
  })
  const bringing = useMutation({
    mutationFn: () => dataOf(api.DELETE('/series/{id}/calling-off', { params: path() })),
    onSuccess: refresh,
  })
  return {
    change: changing.mutateAsync,
    changeError: changing.error,
    isChanging: changing.isPending,
    callOff: callingOff.mutateAsync,
    callOffError: callingOff.error,
    isCallingOff: callingOff.isPending,
    bringBack: bringing.mutateAsync,
    reset: () => {
      changing.reset()
      callingOff.reset()
    },
  }
}

/** How a rule would suit people, before the series is made. */
export function useNewRunCheck(wish: MaybeRefOrGetter<Schemas['NewRunCheck'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['run-check', 'new', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(api.POST('/runs/check', { body: toValue(wish)!, signal })),
  })
  return { check: computed(() => (toValue(wish) ? reading.data.value : undefined)) }
}

/** How another rule or time would suit everyone's calendars; asked once the form stands still. */
export function useRunCheck(seriesId: MaybeRefOrGetter<string>, wish: MaybeRefOrGetter<Schemas['RunWish'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['run-check', toValue(seriesId), toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(
        api.POST('/series/{id}/run/check', {
          params: { path: { id: toValue(seriesId) } },
          body: toValue(wish)!,
          signal,
        }),
      ),
  })
  return { check: reading.data }
}
