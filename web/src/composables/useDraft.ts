import { ref, watch, type Ref } from 'vue'
import { useMine } from './useMine'

/**
 * A value kept in the browser while it is being typed, so that a reload loses nothing. `forget` when it is kept
 * elsewhere. It belongs to whoever was signed in when it was begun.
 */
export function useDraft<T>(name: string, empty: () => T): { draft: Ref<T>; forget: () => void } {
  const key = useMine().mine(`draft:${name}`)
  const saved = localStorage.getItem(key)
  const draft = ref(saved === null ? empty() : JSON.parse(saved)) as Ref<T>
  watch(
    draft,
    value => {
      if (JSON.stringify(value) === JSON.stringify(empty())) localStorage.removeItem(key)
      else localStorage.setItem(key, JSON.stringify(value))
    },
    { deep: true, flush: 'sync' },
  )
  const forget = () => {
    draft.value = empty()
    localStorage.removeItem(key)
  }
  return { draft, forget }
}

/** Of a line that is being edited. */
export const editDraft = (lineId: string) => `edit-${lineId}`
/** Of a line that is being typed; null: under what is left over. */
export const lineDraft = (meetingId: string, topicId: string | null) => `line-${meetingId}-${topicId}`

/** Whether something lies there. */
export const hasDraft = (name: string) => localStorage.getItem(useMine().mine(`draft:${name}`)) !== null

/** What lies there, which is no draft any more. */
export function takeDraft<T>(name: string): T | null {
  const key = useMine().mine(`draft:${name}`)
  const saved = localStorage.getItem(key)
  localStorage.removeItem(key)
  return saved === null ? null : (JSON.parse(saved) as T)
}
