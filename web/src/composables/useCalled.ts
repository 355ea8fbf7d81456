import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { api, dataOf } from '../api/client'
import { useNotice } from './useNotice'

/** What people are called in the minutes of a series besides their names; `personId` null: nobody any more. */
export function useCalled() {
  const cache = useQueryClient()
  const { complain } = useNotice()
  const setting = useMutation({
    mutationFn: ({ seriesId, ...body }: { seriesId: string; word: string; personId: string | null }) =>
      dataOf(api.PUT('/series/{id}/called', { params: { path: { id: seriesId } }, body })),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['series'] }),
    onError: complain,
  })
  return { call: setting.mutate }
}
