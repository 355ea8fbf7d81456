import { ref } from 'vue'

export interface Notice { text: string; undo?: () => void; go?: { label: string; to: string }; trouble?: boolean }

const notice = ref<Notice | null>(null)

/** The one line at the foot of the screen: what was done, with a way back. */
export function useNotice() {
  const say = (text: string, undo?: () => void, go?: { label: string; to: string }) => { notice.value = { text, undo, go } }
  const complain = (error: Error) => { notice.value = { text: error.message, trouble: true } }
  return { notice, say, complain }
}
