import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { useNotice } from './useNotice'
import { api, dataOf, type Schemas } from '../api/client'
import { now } from '../present'

// While a call is open, who is in it changes all the time.
const isOpen = (meeting: Schemas['Desk']['meetings'][number]) =>
  meeting.callOpens !== null && Date.parse(meeting.callOpens) <= now()

/** What needs me today, looked at again every minute, and more often while a call is open. */
export function useDesk() {
  const reading = useQuery({
    queryKey: ['desk'],
    queryFn: () => dataOf(api.GET('/desk')),
    refetchInterval: query => (query.state.data?.meetings.some(isOpen) ? 5_000 : 60_000),
  })
  return { desk: reading.data, error: reading.error }
}

/** Puts something on one's Desk aside; Undo brings it back. It comes again by itself when it changes. */
export function useNotices() {
  const cache = useQueryClient()
  const { say, complain } = useNotice()
  const keeping = useMutation({
    mutationFn: (body: Schemas['SeenNotice']) => dataOf(api.PUT('/desk/notices', { body })),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['desk'] }),
    onError: complain,
  })
  return {
    async putAside(notice: string) {
      await keeping.mutateAsync({ notice, seen: true })
      say('Put aside. It comes again when it changes.', () => keeping.mutate({ notice, seen: false }))
    },
  }
}
