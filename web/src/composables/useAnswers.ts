import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'
import { useChanged } from './useChanged'

export type AnswerTable = Schemas['AnswerTable']

/** Who comes to the meetings of a series. */
export function useAnswers(seriesId: MaybeRefOrGetter<string>) {
  const reading = useQuery({
    queryKey: computed(() => ['answers', toValue(seriesId)]),
    refetchInterval: 15_000,
    queryFn: () => dataOf(api.GET('/series/{id}/answers', { params: { path: { id: toValue(seriesId) } } })),
  })
  return { table: reading.data, error: reading.error }
}

/** What the keeper does about who comes. */
export function useAnswerDeeds(seriesId: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const key = computed(() => ['answers', toValue(seriesId)])
  const changed = useChanged()
  const refresh = () => changed('answer')
  const settling = useMutation({
    mutationFn: ({ id, take }: { id: string; take: boolean }) =>
      dataOf(api.PUT('/offered-times/{id}', { params: { path: { id } }, body: { take } })),
    onSuccess: table => {
      cache.setQueryData(key.value, table)
      refresh()
    },
  })
  const reminding = useMutation({
    mutationFn: ({ meetingId, id }: { meetingId: string; id: string }) =>
      dataOf(api.POST('/meetings/{id}/reminders', { params: { path: { id: meetingId } }, body: { id } })),
    onSuccess: refresh,
  })
  const answering = useMutation({
    mutationFn: ({ meetingId, personId, ...body }: Schemas['Answer'] & { meetingId: string; personId: string }) =>
      dataOf(api.PUT('/meetings/{id}/answers/{personId}', { params: { path: { id: meetingId, personId } }, body })),
    onSuccess: refresh,
  })
  const setting = useMutation({
    mutationFn: ({ meetingId, ...body }: Schemas['MeetingOptions'] & { meetingId: string }) =>
      dataOf(api.PUT('/meetings/{id}/options', { params: { path: { id: meetingId } }, body })),
    onSuccess: table => {
      cache.setQueryData(key.value, table)
      refresh()
    },
  })
  const dismissing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/incoming-mails/{id}', { params: { path: { id } } })),
    onSuccess: refresh,
  })
  return {
    settle: settling.mutateAsync,
    remind: reminding.mutateAsync,
    answer: answering.mutateAsync,
    dismiss: dismissing.mutate,
    setOptions: setting.mutateAsync,
    optionsError: setting.error,
    isSetting: setting.isPending,
  }
}

/** Another address for a guest whom mail does not reach; the last mail goes once more. */
export function useCorrectAddress() {
  const changed = useChanged()
  const correcting = useMutation({
    mutationFn: ({ seriesId, personId, email }: { seriesId: string; personId: string; email: string }) =>
      dataOf(
        api.PUT('/series/{id}/addresses/{personId}', { params: { path: { id: seriesId, personId } }, body: { email } }),
      ),
    onSuccess: () => changed('address'),
  })
  return { correct: correcting.mutateAsync, error: correcting.error, isCorrecting: correcting.isPending }
}

/** For the admin: mail nobody could read. */
export function useIncomingMails(enabled: MaybeRefOrGetter<boolean>) {
  const changed = useChanged()
  const reading = useQuery({
    queryKey: ['incoming-mails'],
    enabled: computed(() => toValue(enabled)),
    queryFn: () => dataOf(api.GET('/incoming-mails')),
  })
  const dismissing = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/incoming-mails/{id}', { params: { path: { id } } })),
    onSuccess: () => changed('incomingMail'),
  })
  return { mails: computed(() => reading.data.value?.mails ?? []), dismiss: dismissing.mutate }
}
