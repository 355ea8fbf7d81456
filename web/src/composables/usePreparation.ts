import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas, type Sheet } from '../api/client'
import { useNotice } from './useNotice'

/** What a place is to have ready for a meeting. */
export function usePreparation(meetingId: MaybeRefOrGetter<string>, show: (sheet: Sheet) => void) {
  const { complain } = useNotice()
  const asking = useMutation({
    mutationFn: ({ placeId, items }: { placeId: string; items: string[] }) =>
      dataOf(
        api.PUT('/meetings/{id}/preparations/{placeId}', {
          params: { path: { id: toValue(meetingId), placeId } },
          body: { items },
        }),
      ),
    onSuccess: show,
    onError: complain,
  })
  return { ask: asking.mutate, isAsking: asking.isPending }
}

/** The same for whoever looks after the place, by their private link. */
export function usePreparationLink(link: MaybeRefOrGetter<{ id: string; token: string }>) {
  const cache = useQueryClient()
  const key = computed(() => ['preparation', toValue(link).id])
  const path = () => ({ params: { path: toValue(link) } })
  const reading = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET('/preparation-links/{id}/{token}', path())),
  })
  const answering = useMutation({
    mutationFn: (body: Schemas['PreparationAnswer']) =>
      dataOf(api.PUT('/preparation-links/{id}/{token}', { ...path(), body })),
    onSuccess: asked => cache.setQueryData(key.value, asked),
  })
  return {
    asked: reading.data,
    error: reading.error,
    answer: answering.mutate,
    answerError: answering.error,
    isAnswering: answering.isPending,
  }
}
