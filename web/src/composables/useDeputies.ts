import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { api, dataOf } from '../api/client'
import { useNotice } from './useNotice'

/** Who may write and hold meetings for the keeper. */
export function useDeputies() {
  const cache = useQueryClient()
  const { complain } = useNotice()
  const setting = useMutation({
    mutationFn: ({ seriesId, personId, deputy }: { seriesId: string; personId: string; deputy: boolean }) =>
      dataOf(
        api.PUT('/series/{id}/deputies/{personId}', { params: { path: { id: seriesId, personId } }, body: { deputy } }),
      ),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['series'] }),
    onError: complain,
  })
  const settingAt = useMutation({
    mutationFn: ({ meetingId, personId, deputy }: { meetingId: string; personId: string; deputy: boolean }) =>
      dataOf(
        api.PUT('/meetings/{id}/deputies/{personId}', {
          params: { path: { id: meetingId, personId } },
          body: { deputy },
        }),
      ),
    onSuccess: (_, { meetingId }) => cache.invalidateQueries({ queryKey: ['sheet', meetingId] }),
    onError: complain,
  })
  return { set: setting.mutate, setAt: settingAt.mutate }
}
