import { ref } from 'vue'
import { useNotice } from './useNotice'

const hidden = ref(new Set<string>())

/**
 * Removing with a way back: it is out of sight at once, and gone when the notice goes, for what was removed cannot be
 * made again as it was.
 */
export function useRemoval() {
  const { show, complain } = useNotice()
  const back = (id: string) => {
    hidden.value = new Set([...hidden.value].filter(one => one !== id))
  }
  function remove(id: string, text: string, really: () => Promise<unknown>) {
    hidden.value = new Set([...hidden.value, id])
    show({
      text,
      undo: () => back(id),
      settle: () =>
        really().catch(fault => {
          back(id)
          complain(fault as Error)
        }),
    })
  }
  const isThere = (one: { id: string }) => !hidden.value.has(one.id)
  return { remove, isThere }
}
