import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, dataOf, keepToken, ProblemError, type Schemas } from '../api/client'
import { keepSession, keptSession } from '../keptSheets'
import { useMine } from './useMine'
import { useNotice } from './useNotice'

const TRY_AGAIN_MS = 3_000

/** Who is signed in, and how to come and go. One query for the whole application. */
export function useSession() {
  const cache = useQueryClient()
  const keep = (session: Schemas['Session']) => {
    keepToken(session.csrfToken)
    useMine().become(session.person?.id ?? null)
    void keepSession(session)
    return session
  }
  // Without a connection it is whoever was signed in last: what they see is what lies in this browser.
  async function read(): Promise<Schemas['Session']> {
    try {
      return keep(await dataOf(api.GET('/session')))
    } catch (error) {
      const kept = error instanceof ProblemError && error.status === 0 ? keptSession() : null
      if (!kept) throw error
      useMine().become(kept.person!.id)
      return kept
    }
  }
  const reading = useQuery({
    queryKey: ['session'],
    queryFn: read,
    staleTime: Infinity,
    networkMode: 'always',
    refetchInterval: query => (query.state.data?.csrfToken === '' ? TRY_AGAIN_MS : false),
  })
  const enter = (session: Schemas['Session']) => {
    cache.removeQueries({ predicate: query => query.queryKey[0] !== 'session' })
    cache.setQueryData(['session'], keep(session))
  }
  const signingIn = useMutation({
    mutationFn: (body: Schemas['SignIn']) => dataOf(api.POST('/session', { body })),
    onSuccess: enter,
  })
  const settingUp = useMutation({
    mutationFn: (body: Schemas['FirstPerson']) => dataOf(api.POST('/setup', { body })),
    onSuccess: enter,
  })
  const choosing = useMutation({
    mutationFn: ({ token, password }: { token: string; password: string }) =>
      dataOf(api.PUT('/sign-in-links/{token}', { params: { path: { token } }, body: { password } })),
    onSuccess: enter,
  })
  const leaving = useMutation({
    mutationFn: async () => {
      // What was removed and not taken back is gone by then.
      await useNotice().leave()
      return dataOf(api.DELETE('/session'))
    },
    onSuccess: enter,
  })
  return {
    session: reading.data,
    person: computed(() => reading.data.value?.person ?? null),
    error: reading.error,
    readAgain: reading.refetch,
    signIn: signingIn.mutate,
    signInError: signingIn.error,
    isSigningIn: signingIn.isPending,
    setUp: settingUp.mutate,
    setUpError: settingUp.error,
    isSettingUp: settingUp.isPending,
    choosePassword: choosing.mutateAsync,
    chooseError: choosing.error,
    isChoosing: choosing.isPending,
    signOut: leaving.mutate,
  }
}
