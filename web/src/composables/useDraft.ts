import { ref, watch, type Ref } from 'vue'

/** A value kept in the browser while it is being typed, so that a reload loses nothing. `forget` when it is kept elsewhere. */
export function useDraft<T>(name: string, empty: () => T): { draft: Ref<T>; forget: () => void } {
  const key = `left-over:draft:${name}`
  const saved = localStorage.getItem(key)
  const draft = ref(saved === null ? empty() : JSON.parse(saved)) as Ref<T>
  watch(draft, value => {
    if (JSON.stringify(value) === JSON.stringify(empty())) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(value))
  }, { deep: true, flush: 'sync' })
  const forget = () => {
    draft.value = empty()
    localStorage.removeItem(key)
  }
  return { draft, forget }
}
