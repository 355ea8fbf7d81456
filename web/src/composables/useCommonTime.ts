import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

export type Fit = Schemas['Fit']
export type Wish = Schemas['CommonTimeWish']
export type RunTime = Schemas['RunTime']

/**
 * Times when people are free together; `wish` null while something it needs is missing. What stood before stays while
 * the next is read.
 */
export function useCommonTime(wish: MaybeRefOrGetter<Wish | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['common-time', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) => dataOf(api.POST('/common-time', { body: toValue(wish)!, signal })),
  })
  return { found: reading.data, error: reading.error, isSearching: reading.isFetching }
}

/** How one chosen time fits. */
export function useTimeCheck(wish: MaybeRefOrGetter<Schemas['TimeToCheck'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['common-time', 'check', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) => dataOf(api.POST('/common-time/check', { body: toValue(wish)!, signal })),
  })
  return { fit: computed(() => (toValue(wish) === null ? undefined : reading.data.value)), error: reading.error }
}

/** How times hold across a run. */
export function useRunTimes(wish: MaybeRefOrGetter<Schemas['RunTimeWish'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['common-time', 'runs', toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) => dataOf(api.POST('/common-time/runs', { body: toValue(wish)!, signal })),
  })
  return {
    runs: computed(() => (toValue(wish) === null ? undefined : reading.data.value)),
    error: reading.error,
    isSearching: reading.isFetching,
  }
}

export function useHolds() {
  const changed = useChanged()
  const refresh = () => changed('hold')
  const keeping = useMutation({
    mutationFn: (body: Schemas['NewHold']) => dataOf(api.POST('/holds', { body })),
    onSuccess: refresh,
  })
  const releasing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/holds/{id}', { params: { path: { id } } })),
    onSuccess: refresh,
  })
  return {
    keep: keeping.mutateAsync,
    keepError: keeping.error,
    isKeeping: keeping.isPending,
    resetKeep: keeping.reset,
    release: releasing.mutate,
  }
}

/** Whether coming meetings of a series still suit, and moving one. */
export function useStillHolds(seriesId: MaybeRefOrGetter<string>, enabled: MaybeRefOrGetter<boolean>) {
  const reading = useQuery({
    queryKey: computed(() => ['still-holds', toValue(seriesId)]),
    enabled: computed(() => toValue(enabled)),
    queryFn: () => dataOf(api.GET('/series/{id}/still-holds', { params: { path: { id: toValue(seriesId) } } })),
  })
  return { checked: reading.data, isChecking: reading.isFetching, checkAgain: reading.refetch }
}

/** Time and place of one meeting alone. */
export function useMeetingChange(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const changing = useMutation({
    mutationFn: ({ version, ...body }: Schemas['ChangedMeeting'] & { version: number }) =>
      dataOf(
        api.PUT('/meetings/{id}', {
          params: { path: { id: toValue(id) }, header: { 'If-Match': `"${version}"` } },
          body,
        }),
      ),
    onSuccess: sheet => {
      cache.setQueryData(['sheet', sheet.id], sheet)
      changed('meetingTime')
    },
  })
  return {
    change: changing.mutateAsync,
    changeError: changing.error,
    isChanging: changing.isPending,
    reset: changing.reset,
  }
}

/** How another time would suit those asked to one meeting. */
export function useMeetingCheck(id: MaybeRefOrGetter<string>, wish: MaybeRefOrGetter<Schemas['MeetingTime'] | null>) {
  const reading = useQuery({
    queryKey: computed(() => ['common-time', 'meeting', toValue(id), toValue(wish)]),
    enabled: computed(() => toValue(wish) !== null),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(
        api.POST('/meetings/{id}/time/check', { params: { path: { id: toValue(id) } }, body: toValue(wish)!, signal }),
      ),
  })
  return { check: reading.data, isChecking: reading.isFetching }
}

export function useMoveMeeting() {
  const cache = useQueryClient()
  const changed = useChanged()
  const moving = useMutation({
    mutationFn: ({ id, version, ...body }: Schemas['NewTime'] & { id: string; version: number }) =>
      dataOf(
        api.PUT('/meetings/{id}/time', { params: { path: { id }, header: { 'If-Match': `"${version}"` } }, body }),
      ),
    onSuccess: sheet => {
      cache.setQueryData(['sheet', sheet.id], sheet)
      changed('meetingTime')
    },
  })
  return { move: moving.mutateAsync, moveError: moving.error, isMoving: moving.isPending }
}
