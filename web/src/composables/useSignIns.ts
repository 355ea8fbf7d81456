import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, dataOf, type Schemas } from '../api/client'

const key = ['sign-ins']

/** Where one is signed in, and one's own password. */
export function useSignIns() {
  const cache = useQueryClient()
  const keep = (answer: Schemas['SignIns']) => {
    cache.setQueryData(key, answer)
  }
  const reading = useQuery({ queryKey: key, queryFn: () => dataOf(api.GET('/sessions')) })
  const ending = useMutation({
    mutationFn: (id: string) => dataOf(api.DELETE('/sessions/{id}', { params: { path: { id } } })),
    onSuccess: keep,
  })
  const endingOthers = useMutation({ mutationFn: () => dataOf(api.DELETE('/sessions')), onSuccess: keep })
  const changing = useMutation({
    mutationFn: (body: Schemas['OwnPassword']) => dataOf(api.PUT('/own-password', { body })),
    onSuccess: () => cache.invalidateQueries({ queryKey: key }),
  })
  return {
    signIns: computed(() => reading.data.value?.sessions ?? []),
    error: reading.error,
    end: ending.mutate,
    endOthers: endingOthers.mutate,
    changePassword: changing.mutateAsync,
    passwordError: changing.error,
    isChanging: changing.isPending,
  }
}

/** A link by mail, for who has forgotten their password. */
export function usePasswordLink() {
  const asking = useMutation({
    mutationFn: (email: string) => dataOf(api.POST('/password-links', { body: { email } })),
  })
  return { ask: asking.mutate, askError: asking.error, isAsking: asking.isPending, asked: asking.isSuccess }
}

/** Whose link this is; looking changes nothing. */
export function useSignInLink(token: string) {
  const reading = useQuery({
    queryKey: ['sign-in-link', token],
    queryFn: () => dataOf(api.GET('/sign-in-links/{token}', { params: { path: { token } } })),
    retry: false,
  })
  return { link: reading.data, error: reading.error }
}

export const inviteToSignIn = (id: string) =>
  dataOf(api.POST('/people/{id}/sign-in-invitation', { params: { path: { id } } }))
