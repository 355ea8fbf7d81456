import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { v7 as newKey } from 'uuid'
import { api, dataOf } from '../api/client'
import { useChanged } from './useChanged'
import { useNotice } from './useNotice'

/** A topic that is one in several series: which, what became of it there, and one more. */
export function useSharedTopic(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const { say, complain } = useNotice()
  const key = computed(() => ['sheet', 'shared', toValue(id)])
  const path = () => ({ path: { id: toValue(id) } })
  const reading = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET('/topics/{id}/shared', { params: path() })),
  })
  const sharing = useMutation({
    mutationFn: ({ seriesId }: { seriesId: string; title: string }) =>
      dataOf(api.POST('/topics/{id}/shared', { params: path(), body: { id: newKey(), seriesId } })),
    onSuccess: (shared, { seriesId, title }) => {
      cache.setQueryData(key.value, shared)
      changed('sheet')
      const there = shared.topics.find(topic => topic.series.id === seriesId)
      say(there?.state === 'brought_in' ? `It is offered to “${title}”.` : `It stands in “${title}” too.`)
    },
    onError: complain,
  })
  return { shared: reading.data, error: reading.error, share: sharing.mutate }
}
