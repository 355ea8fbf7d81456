import { useQuery } from '@tanstack/vue-query'
import { api, dataOf } from '../api/client'

/** What needs me today, looked at again every minute. */
export function useDesk() {
  const reading = useQuery({ queryKey: ['desk'], queryFn: () => dataOf(api.GET('/desk')), refetchInterval: 60_000 })
  return { desk: reading.data, error: reading.error }
}
