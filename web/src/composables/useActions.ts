import { useInfiniteQuery, useMutation, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { v7 as newKey } from 'uuid'
import { api, dataOf, ifMatch, type Action, type Schemas } from '../api/client'
import { whenRead } from './fileReading'
import { useNotice } from './useNotice'
import { useChanged } from './useChanged'

/** What a list of actions is narrowed to and put in order by, as it stands in the address. */
export interface ActionFilter {
  whose: string
  state: 'open' | 'closed'
  seriesId?: string
  only?: 'overdue' | 'due' | 'stuck' | 'no_owner' | 'no_date'
  group: 'due' | 'series' | 'owner'
}

/** A list of actions, page by page. */
export function useActionList(filter: MaybeRefOrGetter<ActionFilter>) {
  const reading = useInfiniteQuery({
    queryKey: computed(() => ['actions', toValue(filter)]),
    queryFn: ({ pageParam }) =>
      dataOf(api.GET('/actions', { params: { query: { ...toValue(filter), page: pageParam } } })),
    initialPageParam: 1,
    placeholderData: before => before,
    getNextPageParam: last => (last.page * last.pageSize < last.total ? last.page + 1 : undefined),
  })
  const first = computed(() => reading.data.value?.pages[0])
  return {
    actions: computed(() => reading.data.value?.pages.flatMap(page => page.actions)),
    total: computed(() => first.value?.total ?? 0),
    series: computed(() => first.value?.series ?? []),
    people: computed(() => first.value?.people ?? []),
    error: reading.error,
    more: reading.fetchNextPage,
    hasMore: reading.hasNextPage,
  }
}

/** What became of one action and its files, asked for when it is opened. */
export function useActionHistory(id: MaybeRefOrGetter<string>, version: MaybeRefOrGetter<number>) {
  const reading = useQuery({
    queryKey: computed(() => ['actions', 'history', toValue(id), toValue(version)]),
    queryFn: () => dataOf(api.GET('/actions/{id}/history', { params: { path: { id: toValue(id) } } })),
  })
  return {
    changes: computed(() => reading.data.value?.changes),
    papers: computed(() => reading.data.value?.papers ?? []),
    error: reading.error,
    readAgain: reading.refetch,
  }
}

/** Ticking off and back, dropping, changing and handing over an action, wherever it shows. */
export function useActionMoves() {
  const { say, complain } = useNotice()
  const changed = useChanged()
  const refresh = () => changed('action')
  const path = (action: { id: string }) => ({ path: { id: action.id } })
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
      dataOf(api.PUT('/actions/{id}', { params: { ...path(action), header: ifMatch(action.version) }, body })),
    onSuccess: refresh,
  })
  const noting = useMutation({
    mutationFn: ({ action, ...body }: { action: Action } & Schemas['ProgressNote']) =>
      dataOf(api.POST('/actions/{id}/notes', { params: path(action), body })),
    onSuccess: refresh,
    onError: complain,
  })
  const handing = useMutation({
    mutationFn: ({ action, ...body }: { action: Action; seriesId: string; meetingId?: string; title: string }) =>
      dataOf(
        api.POST('/actions/{id}/handing-over', {
          params: path(action),
          body: { id: newKey(), seriesId: body.seriesId, meetingId: body.meetingId ?? null },
        }),
      ),
    onSuccess: (_, { action, title }) => {
      refresh()
      say(`“${action.text}” is with “${title}” now.`)
    },
    onError: complain,
  })
  const parting = useMutation({
    mutationFn: (action: Action) => dataOf(api.PUT('/actions/{id}/one-each', { params: path(action) })),
    onSuccess: (_, action) => {
      refresh()
      say(`“${action.text}” is one each now.`)
    },
    onError: complain,
  })
  const giving = useMutation({
    mutationFn: (action: Action) => dataOf(api.DELETE('/actions/{id}/handing-over', { params: path(action) })),
    onSuccess: (_, action) => {
      refresh()
      say(`“${action.text}” is back with “${action.handedFrom?.name}”.`)
    },
    onError: complain,
  })

  /** One after the other; says how many could be done, with a way back. */
  async function all(actions: Action[], each: (action: Action) => Promise<unknown>, said: string, undo?: () => void) {
    const done = await Promise.allSettled(actions.map(each))
    refresh()
    const failed = done.flatMap(one => (one.status === 'rejected' ? [one.reason as Error] : []))
    if (failed.length) complain(new Error(`${failed.length} of ${actions.length}: ${failed[0]!.message}`))
    else say(said, undo)
  }
  return {
    move: moving.mutate,
    change: changing.mutateAsync,
    note: noting.mutateAsync,
    handOver: handing.mutateAsync,
    giveBack: giving.mutate,
    /** What several own together, as one action for each of them. */
    oneEach: parting.mutate,
    moveAll: (actions: Action[], state: 'open' | 'done') =>
      all(
        actions,
        action => put(action.id, { state }),
        `${some(actions)} ${state === 'done' ? 'done' : 'open again'}.`,
        state === 'done'
          ? () => void all(actions, action => put(action.id, { state: 'open' }), 'Open again.')
          : undefined,
      ),
    changeAll: (actions: Action[], wish: (action: Action) => Partial<Schemas['ChangedAction']>) =>
      all(
        actions,
        action =>
          dataOf(
            api.PUT('/actions/{id}', {
              params: { ...path(action), header: ifMatch(action.version) },
              body: {
                text: action.text,
                ownerIds: action.owners.map(owner => owner.id),
                dueOn: action.dueOn,
                ...wish(action),
              },
            }),
          ),
        `${some(actions)} changed.`,
      ),
  }
}

const some = (actions: Action[]) => (actions.length === 1 ? 'One action is' : `${actions.length} actions are`)

/** Actions taken in from a file. */
export async function readActions(seriesId: string, body: Schemas['ActionFile']) {
  const handedIn = api.POST('/series/{id}/actions/reading', { params: { path: { id: seriesId } }, body })
  return (await whenRead(dataOf(handedIn))).actions!
}
export const addActions = (seriesId: string, actions: Schemas['NewActions']['actions']) =>
  dataOf(api.POST('/series/{id}/actions', { params: { path: { id: seriesId } }, body: { actions } }))

/** One action by its owner's private link. */
export function useActionLink(link: MaybeRefOrGetter<{ id: string; personId: string; token: string }>) {
  const key = computed(() => ['action-link', toValue(link)])
  const reading = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET('/action-links/{id}/{personId}/{token}', { params: { path: toValue(link) } })),
    retry: false,
  })
  const saying = useMutation({
    mutationFn: (body: Schemas['ActionWord']) =>
      dataOf(api.PUT('/action-links/{id}/{personId}/{token}', { params: { path: toValue(link) }, body })),
    onSuccess: () => reading.refetch(),
  })
  return {
    action: reading.data,
    error: reading.error,
    say: saying.mutateAsync,
    sayError: saying.error,
    isSaying: saying.isPending,
  }
}
