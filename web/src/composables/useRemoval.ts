import { ref } from 'vue'
import { useNotice } from './useNotice'

const hidden = ref(new Set<string>())

/**
 * Removing with a way back: it is out of sight at once, and gone when the notice goes, for what was removed cannot be
 * made again as it was.
 */
export function useRemoval() {
  const { show, complain, undo } = useNotice()
  const back = (id: string) => {
    hidden.value = new Set([...hidden.value].filter(one => one !== id))
  }
  /** @returns takes it back, and whether that was in time */
  function remove(id: string, text: string, really: () => Promise<unknown>) {
    let waits = true
    hidden.value = new Set([...hidden.value, id])
    show({
      text,
      undo: () => back(id),
      settle: () => {
        waits = false
        return really().catch(fault => {
          back(id)
          complain(fault as Error)
        })
      },
    })
    return () => {
      if (waits) undo()
      else back(id)
      return waits
    }
  }
  const isThere = (one: { id: string }) => !hidden.value.has(one.id)
  return { remove, isThere }
}
