import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** A series that is to end or to pause. @param wanted whether what is still open in it is asked for */
export function useEnding(seriesId: MaybeRefOrGetter<string>, wanted: MaybeRefOrGetter<boolean>) {
  const changed = useChanged()
  const path = () => ({ path: { id: toValue(seriesId) } })
  const refresh = () => {
    changed('run')
    changed('action')
  }
  const reading = useQuery({
    queryKey: computed(() => ['series', 'ending', toValue(seriesId)]),
    enabled: computed(() => toValue(wanted)),
    staleTime: 0,
    queryFn: () => dataOf(api.GET('/series/{id}/ending', { params: path() })),
  })
  const ending = useMutation({
    mutationFn: (body: Schemas['EndingWish']) => dataOf(api.POST('/series/{id}/ending', { params: path(), body })),
    onSuccess: refresh,
  })
  const pausing = useMutation({
    mutationFn: (body: Schemas['PauseWish']) => dataOf(api.POST('/series/{id}/pause', { params: path(), body })),
    onSuccess: refresh,
  })
  return {
    ending: reading.data,
    end: ending.mutateAsync,
    endError: ending.error,
    isEnding: ending.isPending,
    pause: pausing.mutateAsync,
    pauseError: pausing.error,
    isPausing: pausing.isPending,
  }
}
