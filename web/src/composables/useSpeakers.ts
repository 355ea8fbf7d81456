import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf } from '../api/client'
import { useNotice } from './useNotice'

/** Who wants to speak at a meeting. */
export function useSpeakers(meetingId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const { complain } = useNotice()
  const setting = useMutation({
    mutationFn: ({ personId, wants }: { personId: string; wants: boolean }) =>
      dataOf(
        api.PUT('/meetings/{id}/speakers/{personId}', {
          params: { path: { id: toValue(meetingId), personId } },
          body: { wants },
        }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['sheet', toValue(meetingId)] }),
    onError: complain,
  })
  return { set: setting.mutate }
}
