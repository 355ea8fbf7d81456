import { useMutation, useQuery } from '@tanstack/vue-query'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

/** A meeting that begins at once, and who is free for it. */
export function useStartNow() {
  const changed = useChanged()
  const reading = useQuery({
    queryKey: ['free-now'],
    queryFn: () => dataOf(api.GET('/free-now')),
    refetchInterval: 60_000,
  })
  const starting = useMutation({
    mutationFn: (body: Schemas['MeetingNow']) => dataOf(api.POST('/meetings-now', { body })),
    onSuccess: () => changed('series'),
  })
  return {
    people: reading.data,
    error: reading.error,
    start: starting.mutateAsync,
    startError: starting.error,
    isStarting: starting.isPending,
  }
}
