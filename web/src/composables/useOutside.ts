import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { whenRead } from './fileReading'
import { useChanged } from './useChanged'

/** Meetings organised elsewhere to which I am asked. */
export function useOutside() {
  const cache = useQueryClient()
  const changed = useChanged()
  const key = ['outside-meetings']
  const reading = useQuery({
    queryKey: key,
    refetchInterval: 60_000,
    queryFn: () => dataOf(api.GET('/outside-meetings')),
  })
  const show = (list: Schemas['OutsideMeetings']) => {
    cache.setQueryData(key, list)
    changed('outside')
  }
  const adding = useMutation({
    mutationFn: async (content: string) => {
      await whenRead(dataOf(api.POST('/outside-meetings', { body: { content } })))
      return dataOf(api.GET('/outside-meetings'))
    },
    onSuccess: show,
  })
  const answering = useMutation({
    mutationFn: ({ id, ...body }: Schemas['OutsideAnswer'] & { id: string }) =>
      dataOf(api.PUT('/outside-meetings/{id}/answer', { params: { path: { id } }, body })),
    onSuccess: show,
  })
  const offering = useMutation({
    mutationFn: ({ id, ...body }: Schemas['OutsideOffer'] & { id: string }) =>
      dataOf(api.POST('/outside-meetings/{id}/offers', { params: { path: { id } }, body })),
    onSuccess: show,
  })
  const keeping = useMutation({
    mutationFn: ({ id, seriesId }: { id: string; seriesId: string }) =>
      dataOf(api.POST('/outside-meetings/{id}/series', { params: { path: { id } }, body: { id: seriesId } })),
    onSuccess: () => changed('outsideSheets'),
  })
  const dismissing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/outside-meetings/{id}', { params: { path: { id } } })),
    onSuccess: show,
  })
  return {
    meetings: computed(() => reading.data.value?.meetings ?? []),
    add: adding.mutateAsync,
    isAdding: adding.isPending,
    offer: offering.mutateAsync,
    answer: answering.mutateAsync,
    isAnswering: answering.isPending,
    keepSheets: keeping.mutateAsync,
    dismiss: dismissing.mutateAsync,
  }
}
