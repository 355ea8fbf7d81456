import { useMutation } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas, type Sheet } from '../api/client'
import { useNotice } from './useNotice'

/** The door of a meeting's call. Each deed answers with the sheet as it is then. */
export function useDoor(meetingId: MaybeRefOrGetter<string>, show: (sheet: Sheet) => void) {
  const { complain } = useNotice()
  const acting = useMutation({
    mutationFn: (act: () => Promise<Sheet>) => act(),
    onSuccess: show,
    onError: complain,
  })
  const id = () => toValue(meetingId)
  const judge = (visit: string, verdict: Schemas['DoorVerdict']['verdict']) =>
    acting.mutate(() =>
      dataOf(api.PUT('/meetings/{id}/door/{visit}', { params: { path: { id: id(), visit } }, body: { verdict } })),
    )
  return {
    letIn: (visit: string) => judge(visit, 'let_in'),
    turnAway: (visit: string) => judge(visit, 'turn_away'),
    takeOut: (visit: string) => judge(visit, 'take_out'),
    letAllIn: () => acting.mutate(() => dataOf(api.PUT('/meetings/{id}/door', { params: { path: { id: id() } } }))),
    take: (visit: string, body: Schemas['CallGuest']) =>
      acting.mutateAsync(() =>
        dataOf(api.PUT('/meetings/{id}/call-guests/{visit}', { params: { path: { id: id(), visit } }, body })),
      ),
    isActing: acting.isPending,
  }
}
