import { useInfiniteQuery, useMutation } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Action, type Schemas } from '../api/client'
import { useNotice } from './useNotice'
import { useChanged } from './useChanged'

/** A list of actions, page by page. */
export function useActionList(whose: MaybeRefOrGetter<'mine' | 'all'>, state: MaybeRefOrGetter<'open' | 'closed'>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['actions', toValue(whose), toValue(state)]),
    queryFn: ({ pageParam }) =>
      dataOf(
        api.GET('/actions', { params: { query: { whose: toValue(whose), state: toValue(state), page: pageParam } } }),
      ),
    initialPageParam: 1,
    getNextPageParam: last => (last.page * last.pageSize < last.total ? last.page + 1 : undefined),
  })
  return {
    actions: computed(() => reading.data.value?.pages.flatMap(page => page.actions)),
    total: computed(() => reading.data.value?.pages[0]?.total ?? 0),
    error: reading.error,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** Ticking off and back, dropping, and changing an action, wherever it shows. */
export function useActionMoves() {
  const { say, complain } = useNotice()
  const changed = useChanged()
  const refresh = () => changed('action')
  const put = (id: string, body: Schemas['NewActionState']) =>
    dataOf(api.PUT('/actions/{id}/state', { params: { path: { id } }, body }))
  const moving = useMutation({
    mutationFn: ({ action, ...body }: { action: Action; state: 'open' | 'done' | 'dropped'; reason?: string }) =>
      put(action.id, body),
    onSuccess: (_, { action, state }) => {
      refresh()
      const words = { open: 'is open again', done: 'is done', dropped: 'is dropped' }[state]
      say(`“${action.text}” ${words}.`, state === 'open' ? undefined : () => moving.mutate({ action, state: 'open' }))
    },
    onError: complain,
  })
  const changing = useMutation({
    mutationFn: ({ action, ...body }: { action: Action } & Schemas['ChangedAction']) =>
      dataOf(api.PUT('/actions/{id}', { params: { path: { id: action.id }, header: ifMatch(action.version) }, body })),
    onSuccess: refresh,
  })
  return { move: moving.mutate, change: changing.mutateAsync }
}
