import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'
import { useNotice } from './useNotice'

/** How a decision was put and voted on. */
export function useMotion(meetingId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const { complain } = useNotice()
  const path = (lineId: string) => ({ path: { id: lineId } })
  const onSuccess = () => {
    cache.invalidateQueries({ queryKey: ['sheet', toValue(meetingId)] })
    changed('sheet')
  }
  const saving = useMutation({
    mutationFn: ({ lineId, ...body }: Schemas['MotionWish'] & { lineId: string }) =>
      dataOf(api.PUT('/lines/{id}/motion', { params: path(lineId), body })),
    onSuccess,
  })
  const removing = useMutation({
    mutationFn: (lineId: string) => dataOf(api.DELETE('/lines/{id}/motion', { params: path(lineId) })),
    onSuccess,
    onError: complain,
  })
  return {
    save: saving.mutateAsync,
    saveError: saving.error,
    isSaving: saving.isPending,
    remove: removing.mutateAsync,
  }
}
