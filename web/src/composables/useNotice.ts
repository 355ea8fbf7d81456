import { ref } from 'vue'

/** `settle` is what happens when nobody took it back. */
export interface Notice {
  text: string
  undo?: () => void
  go?: { label: string; to: string }
  settle?: () => unknown
  trouble?: boolean
}

const notice = ref<Notice | null>(null)

/** The one line at the foot of the screen: what was done, with a way back. */
export function useNotice() {
  const leave = () => {
    const settle = notice.value?.settle
    notice.value = null
    return settle?.()
  }
  const show = (next: Notice) => {
    void leave()
    notice.value = next
  }
  const say = (text: string, undo?: () => void, go?: { label: string; to: string }) => show({ text, undo, go })
  const complain = (error: Error) => show({ text: error.message, trouble: true })
  const undo = () => {
    const back = notice.value?.undo
    notice.value = null
    back?.()
  }
  return { notice, say, complain, show, leave, undo }
}

// Whoever leaves the page has not taken it back.
addEventListener('pagehide', () => void useNotice().leave())
