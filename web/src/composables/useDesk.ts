import { useQuery } from '@tanstack/vue-query'
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
