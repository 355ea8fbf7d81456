import { useMutation } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas, type Sheet } from '../api/client'
import { useNotice } from './useNotice'

/** People with times of their own at a meeting. Each deed answers with the sheet as it is then. */
export function useRow(meetingId: MaybeRefOrGetter<string>, show: (sheet: Sheet) => void) {
  const { complain } = useNotice()
  const params = () => ({ params: { path: { id: toValue(meetingId) } } })
  const setting = useMutation({
    mutationFn: (slots: Schemas['Row']['slots']) =>
      dataOf(api.PUT('/meetings/{id}/row', { ...params(), body: { slots } })),
    onSuccess: show,
  })
  const telling = useMutation({
    mutationFn: () => dataOf(api.POST('/meetings/{id}/row/telling', params())),
    onSuccess: show,
    onError: complain,
  })
  const delaying = useMutation({
    mutationFn: (minutes: number) => dataOf(api.PUT('/meetings/{id}/row/delay', { ...params(), body: { minutes } })),
    onSuccess: show,
    onError: complain,
  })
  return {
    set: setting.mutateAsync,
    setError: setting.error,
    isSetting: setting.isPending,
    tell: () => telling.mutate(),
    delay: delaying.mutate,
  }
}

/** Times of which each on a list picks one. */
export function useRowPicking(meetingId: MaybeRefOrGetter<string>, show: (sheet: Sheet) => void) {
  const { complain } = useNotice()
  const params = () => ({ params: { path: { id: toValue(meetingId) } } })
  const planning = useMutation({
    mutationFn: (body: Schemas['RowPlanWish']) => dataOf(api.PUT('/meetings/{id}/row/plan', { ...params(), body })),
    onSuccess: show,
  })
  const asking = useMutation({
    mutationFn: (again: boolean) => dataOf(api.POST('/meetings/{id}/row/asking', { ...params(), body: { again } })),
    onSuccess: show,
    onError: complain,
  })
  return {
    plan: planning.mutateAsync,
    planError: planning.error,
    isPlanning: planning.isPending,
    ask: asking.mutate,
  }
}
