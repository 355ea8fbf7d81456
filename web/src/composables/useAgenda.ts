import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { v7 as newKey } from 'uuid'
import { api, dataOf, type Schemas } from '../api/client'
import { count } from '../time'
import { useChanged } from './useChanged'
import { useNotice } from './useNotice'

/** What is done about the agenda of one meeting, before it is held. */
export function useAgenda(meetingId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const { say, show, complain } = useNotice()
  const path = () => ({ path: { id: toValue(meetingId) } })
  const readAgain = () => {
    cache.invalidateQueries({ queryKey: ['sheet', toValue(meetingId)] })
    changed('sheet')
  }
  const sending = useMutation({
    mutationFn: (note: string) =>
      dataOf(
        api.POST('/meetings/{id}/agenda-sendings', {
          params: path(),
          body: { id: newKey(), note: note.trim() || null },
        }),
      ),
    onSuccess: sheet => {
      readAgain()
      say(`The agenda is on its way to ${count(sheet.agendaSent?.recipients ?? 0, 'person')}.`)
    },
    onError: complain,
  })
  const asking = useMutation({
    mutationFn: (id: string) =>
      dataOf(api.POST('/meetings/{id}/asking-for-topics', { params: { path: { id } }, body: { id: newKey() } })),
    onError: complain,
  })
  /** Mails go to many, so they go when the notice has gone and nobody took it back. */
  function ask() {
    const id = toValue(meetingId)
    show({
      text: 'Everybody is asked for topics by mail in a moment.',
      undo: () => {},
      settle: () => asking.mutateAsync(id).catch(() => {}),
    })
  }
  const settling = useMutation({
    mutationFn: (take: boolean) =>
      dataOf(api.PUT('/meetings/{id}/standing-agenda', { params: path(), body: { take } })),
    onSuccess: readAgain,
    onError: complain,
  })
  const answering = useMutation({
    mutationFn: ({ id, ...body }: { id: string } & Schemas['TopicAnswer']) =>
      dataOf(api.PUT('/topics/{id}/answer', { params: { path: { id } }, body })),
    onSuccess: readAgain,
    onError: complain,
  })
  const callingOff = useMutation({
    mutationFn: (reason: string) =>
      dataOf(api.PUT('/meetings/{id}/state', { params: path(), body: { state: 'called_off', reason } })),
    onSuccess: () => changed('answer'),
  })
  return {
    callOff: callingOff.mutateAsync,
    send: sending.mutate,
    ask,
    settle: settling.mutate,
    answer: answering.mutate,
    isSending: computed(() => sending.isPending.value || asking.isPending.value),
  }
}

/** The standing agenda of a series. */
export function useStandingAgenda(seriesId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const key = computed(() => ['standing-agenda', toValue(seriesId)])
  const path = () => ({ path: { id: toValue(seriesId) } })
  const reading = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET('/series/{id}/standing-agenda', { params: path() })),
  })
  const setting = useMutation({
    mutationFn: (body: Schemas['StandingWish']) =>
      dataOf(api.PUT('/series/{id}/standing-agenda', { params: path(), body })),
    onSuccess: agenda => {
      cache.setQueryData(key.value, agenda)
      changed('answer')
    },
  })
  return {
    agenda: reading.data,
    error: reading.error,
    set: setting.mutateAsync,
    setError: setting.error,
    isSetting: setting.isPending,
    readAgain: reading.refetch,
  }
}
