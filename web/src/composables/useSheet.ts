import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, toValue, watch, type MaybeRefOrGetter, type Ref } from 'vue'
import { api, dataOf, ifMatch, ProblemError, type Line, type Schemas, type Sheet, type Topic } from '../api/client'
import { asKept, keepSheet, keptSheet } from '../keptSheets'
import { useNotice } from './useNotice'
import { useChanged } from './useChanged'
import { useMine } from './useMine'
import { withChange, withKeptLine } from '../sheetChange'

const TRY_AGAIN_MS = 3_000

// What was read or answered before a change that was told meanwhile must not take it from the page again.
const newer = (known: unknown, read: unknown) =>
  known &&
  !('keptAt' in (known as Sheet)) &&
  (known as Sheet).id === (read as Sheet).id &&
  (known as Sheet).number > (read as Sheet).number
    ? known
    : read

/** As the server has it; without a connection as it was read last in this browser. */
async function readSheet(id: string): Promise<Sheet & { keptAt?: number }> {
  const me = useMine().owner.value
  try {
    const sheet = await dataOf(api.GET('/meetings/{id}', { params: { path: { id } } }))
    if (me) void keepSheet(me, sheet)
    return sheet
  } catch (error) {
    const kept = me && error instanceof ProblemError && error.status === 0 ? await keptSheet(me, id) : undefined
    if (!kept) throw error
    return asKept(kept)
  }
}

/** One sheet, live, and all that can be done to it. Each write answers with the sheet as it is then. */
export function useSheet(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const { complain } = useNotice()
  const key = computed(() => ['sheet', toValue(id)])
  const path = () => ({ id: toValue(id) })
  const reading = useQuery({
    queryKey: key,
    queryFn: () => readSheet(toValue(id)),
    structuralSharing: newer,
    networkMode: 'always',
    // The clock of a meeting in session moves on by itself.
    refetchInterval: ({ state: { data } }) =>
      data && 'keptAt' in data ? TRY_AGAIN_MS : data?.state === 'in_session' ? 20_000 : false,
  })
  const show = (sheet: Sheet) => cache.setQueryData<Sheet>(['sheet', sheet.id], known => newer(known, sheet) as Sheet)
  const readAgain = () => cache.invalidateQueries({ queryKey: key.value })
  const changed = useChanged()
  const others = () => changed('sheet')

  const acting = useMutation({
    mutationFn: (act: () => Promise<Sheet>) => act(),
    onSuccess: sheet => {
      show(sheet)
      others()
    },
    onError: error => {
      complain(error)
      readAgain()
    },
  })
  const changing = useMutation({
    mutationFn: (act: () => Promise<unknown>) => act(),
    onSuccess: () => {
      others()
      return readAgain()
    },
    onError: error => {
      complain(error)
      return readAgain()
    },
  })
  const act = acting.mutate
  const change = changing.mutateAsync

  return {
    sheet: reading.data,
    error: reading.error,
    readAgain,
    /** As last told, be it on the page yet or not. */
    known: () => cache.getQueryData<Sheet>(key.value),
    isActing: acting.isPending,
    live: useLive(id, reading.data, change => {
      const known = cache.getQueryData<Sheet>(key.value)
      const told = known && withChange(known, change)
      if (told) cache.setQueryData(key.value, told)
      else readAgain()
    }),
    show,
    dropLine: (id: string) => cache.setQueryData<Sheet>(key.value, known => known && withKeptLine(known, id, null)),
    keepLine: (line: Line) =>
      cache.setQueryData<Sheet>(key.value, known => known && withKeptLine(known, line.id, line)),
    setState: (state: Schemas['MeetingState'], reason?: string) =>
      act(() =>
        dataOf(api.PUT('/meetings/{id}/state', { params: { path: path() }, body: { state, reason: reason ?? null } })),
      ),
    split: (actionId: string, parts: { id: string; text: string }[]) =>
      act(() =>
        dataOf(
          api.POST('/meetings/{id}/reviews/{actionId}/split', {
            params: { path: { ...path(), actionId } },
            body: { parts },
          }),
        ),
      ),
    correct: (reason: string) =>
      act(() => dataOf(api.POST('/meetings/{id}/correction', { params: { path: path() }, body: { reason } }))),
    leaveAsIssued: () => act(() => dataOf(api.DELETE('/meetings/{id}/correction', { params: { path: path() } }))),
    /** The minutes of an earlier meeting, at this one. */
    approve: (meetingId: string, approved: boolean) =>
      act(() =>
        dataOf(
          api.PUT('/meetings/{id}/approval', {
            params: { path: { id: meetingId } },
            body: { atMeetingId: toValue(id), approved },
          }),
        ),
      ),
    discuss: (topicId: string | null) =>
      act(() => dataOf(api.PUT('/meetings/{id}/present-topic', { params: { path: path() }, body: { topicId } }))),
    order: (topicIds: string[]) =>
      acting.mutateAsync(() =>
        dataOf(api.PUT('/meetings/{id}/topic-order', { params: { path: path() }, body: { topicIds } })),
      ),
    addTopic: (body: Schemas['NewTopic']) =>
      change(() => dataOf(api.POST('/meetings/{id}/topics', { params: { path: path() }, body }))),
    changeTopic: (topic: Topic, body: Schemas['ChangedTopic']) =>
      change(() =>
        dataOf(api.PUT('/topics/{id}', { params: { path: { id: topic.id }, header: ifMatch(topic.version) }, body })),
      ),
    removeTopic: (topicId: string) =>
      change(() => dataOf(api.DELETE('/topics/{id}', { params: { path: { id: topicId } } }))),
    answer: (personId: string, body: Schemas['Answer']) =>
      change(() =>
        dataOf(api.PUT('/meetings/{id}/answers/{personId}', { params: { path: { ...path(), personId } }, body })),
      ),
  }
}

/**
 * Follows what others do to a sheet, from the last change it holds. The browser reconnects by itself and is told what
 * it missed; where it gives up (nobody was signed in), it is begun anew.
 */
function useLive(
  id: MaybeRefOrGetter<string>,
  sheet: Ref<Sheet | undefined>,
  tell: (change: Schemas['SheetChange']) => void,
) {
  const live = ref(false)
  let source: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  function close() {
    clearTimeout(timer)
    source?.close()
    source = undefined
  }
  function follow(meetingId: string, after: number) {
    source = new EventSource(`/api/meetings/${meetingId}/live?after=${after}`)
    source.addEventListener('open', () => {
      clearTimeout(timer)
      live.value = true
    })
    source.addEventListener('changed', event => tell(JSON.parse(event.data)))
    source.addEventListener('error', () => {
      // Each minute the server has the browser come back; that is no interruption.
      clearTimeout(timer)
      timer = setTimeout(() => {
        live.value = false
        if (source?.readyState !== EventSource.CLOSED) return
        close()
        if (sheet.value) follow(meetingId, sheet.value.number)
      }, TRY_AGAIN_MS)
    })
  }
  watch(
    [() => toValue(id), () => sheet.value?.id],
    ([meetingId, shown]) => {
      close()
      live.value = false
      if (sheet.value && shown === meetingId) follow(meetingId, sheet.value.number)
    },
    { immediate: true },
  )
  onBeforeUnmount(close)
  return live
}

/** How a typed line would be kept; asked while it is typed. */
export const readLine = (meetingId: string, text: string, signal?: AbortSignal) =>
  dataOf(api.POST('/meetings/{id}/reading', { params: { path: { id: meetingId } }, body: { text }, signal }))

/** Puts a meeting that stood alone into a series. */
export function useIntoSeries(id: MaybeRefOrGetter<string>) {
  const cache = useQueryClient()
  const changed = useChanged()
  const putting = useMutation({
    mutationFn: (seriesId: string) =>
      dataOf(api.PUT('/meetings/{id}/series', { params: { path: { id: toValue(id) } }, body: { seriesId } })),
    onSuccess: sheet => {
      cache.setQueryData(['sheet', sheet.id], sheet)
      changed('run')
      changed('sheet')
    },
  })
  return { put: putting.mutateAsync, putError: putting.error, isPutting: putting.isPending }
}
