import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, ifMatch, type Schemas } from '../api/client'
import { whenRead } from './fileReading'
import { useNotice } from './useNotice'
import { useChanged } from './useChanged'

export type Calendar = Schemas['Calendar']
export interface Owner {
  kind: 'person' | 'place'
  id: string
}

/** A file as the API takes it. */
export async function base64(file: File) {
  const bytes = new Uint8Array(await file.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 32_768) text += String.fromCharCode(...bytes.subarray(i, i + 32_768))
  return btoa(text)
}

/** The calendars of a person or a place; while one is being read, how far it has come. */
export function useCalendars(owner: MaybeRefOrGetter<Owner>, enabled: MaybeRefOrGetter<boolean>) {
  const cache = useQueryClient()
  const { complain } = useNotice()
  const key = computed(() => ['calendars', toValue(owner).id])
  const path = () => ({ params: { path: { id: toValue(owner).id } } })
  const reading = useQuery({
    queryKey: key,
    enabled: computed(() => toValue(enabled)),
    queryFn: () =>
      dataOf(
        toValue(owner).kind === 'person'
          ? api.GET('/people/{id}/calendars', path())
          : api.GET('/places/{id}/calendars', path()),
      ),
    refetchInterval: query =>
      query.state.data?.calendars.some(
        calendar =>
          ['waiting', 'running'].includes(calendar.state) || (calendar.kind === 'address' && !calendar.checkedAt),
      )
        ? 700
        : false,
  })
  const changed = useChanged()
  const refresh = () => changed('calendar')
  const acting = useMutation({
    mutationFn: (act: () => Promise<unknown>) => act(),
    onSuccess: () => {
      cache.invalidateQueries({ queryKey: key.value })
      refresh()
    },
  })
  const act = (deed: () => Promise<unknown>) => acting.mutateAsync(deed)
  const quietly = (deed: () => Promise<unknown>) => acting.mutate(deed, { onError: complain })
  const one = (id: string) => ({ params: { path: { id } } })
  return {
    calendars: computed(() => reading.data.value?.calendars),
    error: reading.error,
    actError: acting.error,
    isActing: acting.isPending,
    resetAct: acting.reset,
    refresh,
    add: (body: Schemas['NewCalendar']) =>
      act(() =>
        dataOf(
          toValue(owner).kind === 'person'
            ? api.POST('/people/{id}/calendars', { ...path(), body })
            : api.POST('/places/{id}/calendars', { ...path(), body }),
        ),
      ),
    replace: (id: string, content: string) =>
      quietly(() => dataOf(api.PUT('/calendars/{id}/file', { ...one(id), body: { content } }))),
    readAgain: (id: string) => quietly(() => dataOf(api.POST('/calendars/{id}/reading', one(id)))),
    cancel: (id: string) => quietly(() => dataOf(api.DELETE('/calendars/{id}/reading', one(id)))),
    remove: (id: string) => act(() => dataOf(api.DELETE('/calendars/{id}', one(id)))),
    addEntry: (id: string, body: Schemas['NewBusyEntry']) =>
      act(() => dataOf(api.POST('/calendars/{id}/entries', { ...one(id), body }))),
    removeEntry: (id: string, entryId: string) =>
      act(() => dataOf(api.DELETE('/calendars/{id}/entries/{entryId}', { params: { path: { id, entryId } } }))),
  }
}

/** One person: hours, days off, what takes their time, private addresses. */
export function usePersonPage(id: MaybeRefOrGetter<string>, isMe: MaybeRefOrGetter<boolean>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const path = () => ({ path: { id: toValue(id) } })
  const reading = useQuery({
    queryKey: computed(() => ['person', toValue(id)]),
    queryFn: () => dataOf(api.GET('/people/{id}', { params: path() })),
  })
  const busy = useQuery({
    queryKey: computed(() => ['busy', toValue(id)]),
    queryFn: () => dataOf(api.GET('/people/{id}/busy', { params: path() })),
  })
  const feeds = useQuery({
    queryKey: computed(() => ['feeds', toValue(id)]),
    enabled: computed(() => toValue(isMe)),
    queryFn: () => dataOf(api.GET('/people/{id}/feeds', { params: path() })),
  })
  const keeping = useMutation({
    mutationFn: ({ version, ...body }: Schemas['HoursWish'] & { version: number }) =>
      dataOf(api.PUT('/people/{id}/hours', { params: { ...path(), header: ifMatch(version) }, body })),
    onSuccess: person => {
      cache.setQueryData(['person', person.id], person)
      changed('hours')
      // With the region goes whether the month is written first.
      if (toValue(isMe)) void cache.invalidateQueries({ queryKey: ['session'] })
    },
  })
  const setting = useMutation({
    mutationFn: (open: boolean) => dataOf(api.PUT('/people/{id}/feeds', { params: path(), body: { open } })),
    onSuccess: set => cache.setQueryData(['feeds', toValue(id)], set),
  })
  return {
    person: reading.data,
    error: reading.error,
    busy: computed(() => busy.data.value?.spans),
    feeds: feeds.data,
    setFeeds: setting.mutate,
    keepHours: keeping.mutateAsync,
    keepError: keeping.error,
    isKeeping: keeping.isPending,
  }
}

/** How somebody wants to be reminded of meetings. */
export function useReminders(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const keeping = useMutation({
    mutationFn: (body: Schemas['RemindersWish']) =>
      dataOf(api.PUT('/people/{id}/reminders', { params: { path: { id: toValue(id) } }, body })),
    onSuccess: person => cache.setQueryData(['person', person.id], person),
  })
  return { keep: keeping.mutateAsync, error: keeping.error, isKeeping: keeping.isPending }
}

export function useRegions() {
  const reading = useQuery({ queryKey: ['regions'], queryFn: () => dataOf(api.GET('/regions')), staleTime: Infinity })
  return computed(() => reading.data.value?.regions ?? [])
}

export const previewImport = async (body: Schemas['PeopleFile']) =>
  (await whenRead(dataOf(api.POST('/people-import/preview', { body })))).people!
export const keepImport = (body: Schemas['PeopleWish']) => dataOf(api.POST('/people-import', { body }))
