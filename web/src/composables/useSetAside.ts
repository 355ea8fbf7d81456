import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'

/** For the admin: work that could not be done in three tries. */
export function useSetAside(enabled: MaybeRefOrGetter<boolean>) {
  const cache = useQueryClient()
  const key = ['set-aside']
  const reading = useQuery({
    queryKey: key,
    enabled: computed(() => toValue(enabled)),
    queryFn: () => dataOf(api.GET('/set-aside')),
  })
  const trying = useMutation({
    mutationFn: () => dataOf(api.POST('/set-aside/tries')),
    onSuccess: answer => {
      cache.setQueryData(key, answer)
    },
  })
  return { setAside: reading.data, tryAgain: trying.mutate, isTrying: trying.isPending }
}
