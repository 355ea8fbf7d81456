import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'

/** What a private link says of whose it is. */
export type LinkPath = { id: string; personId: string; token: string }

const keyOf = ({ id, personId }: LinkPath) => ['answer-link', id, personId]

/** Each deed by a link answers with what the page shows from then on. */
function useShown(path: () => LinkPath) {
  const cache = useQueryClient()
  return (link: Schemas['AnswerLink']) => cache.setQueryData(keyOf(path()), link)
}

/** What an invited person sees by their private link, and how they answer. */
export function useAnswerLink(path: () => LinkPath) {
  const show = useShown(path)
  const at = () => ({ params: { path: path() } })
  const reading = useQuery({
    queryKey: keyOf(path()),
    queryFn: () => dataOf(api.GET('/answer-links/{id}/{personId}/{token}', at())),
    retry: false,
  })
  const answering = useMutation({
    mutationFn: (body: Schemas['LinkAnswer']) =>
      dataOf(api.PUT('/answer-links/{id}/{personId}/{token}', { ...at(), body })),
    onSuccess: show,
  })
  const feeding = useMutation({
    mutationFn: () => dataOf(api.POST('/answer-links/{id}/{personId}/{token}/feed', at())),
  })
  return {
    readAgain: reading.refetch,
    isReading: reading.isFetching,
    mailFeed: feeding.mutateAsync,
    isFeeding: feeding.isPending,
    link: reading.data,
    error: reading.error,
    answer: answering.mutateAsync,
    isAnswering: answering.isPending,
    answerError: answering.error,
  }
}

/** Another time, offered to whoever keeps the meeting. */
export function useLinkOffer(path: () => LinkPath) {
  const offering = useMutation({
    mutationFn: (body: Schemas['LinkOffer']) =>
      dataOf(api.POST('/answer-links/{id}/{personId}/{token}/offers', { params: { path: path() }, body })),
    onSuccess: useShown(path),
  })
  return { offer: offering.mutateAsync, error: offering.error, isOffering: offering.isPending }
}

/** How a guest is called and where they are. */
export function useLinkSelf(path: () => LinkPath) {
  const describing = useMutation({
    mutationFn: (body: Schemas['LinkSelf']) =>
      dataOf(api.PUT('/answer-links/{id}/{personId}/{token}/self', { params: { path: path() }, body })),
    onSuccess: useShown(path),
  })
  return { describe: describing.mutateAsync, error: describing.error, isDescribing: describing.isPending }
}

/** All a guest is invited to. */
export function useLinkInvitations(path: () => LinkPath) {
  const reading = useQuery({
    queryKey: ['link-invitations', path().personId],
    queryFn: () => dataOf(api.GET('/answer-links/{id}/{personId}/{token}/invitations', { params: { path: path() } })),
    retry: false,
  })
  return { series: computed(() => reading.data.value?.series) }
}

/** Somebody who comes instead. */
export function useLinkSubstitute(path: () => LinkPath) {
  const passing = useMutation({
    mutationFn: (body: Schemas['LinkSubstitute']) =>
      dataOf(api.POST('/answer-links/{id}/{personId}/{token}/substitutes', { params: { path: path() }, body })),
    onSuccess: useShown(path),
  })
  return { pass: passing.mutateAsync, error: passing.error, isPassing: passing.isPending }
}
