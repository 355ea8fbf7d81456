import { computed, ref } from 'vue'

const MOST = 200

/** Something that can be done; doing it gives what takes it back. */
export type Step = () => Step

/** What somebody has done on a page, to be taken back and done again in turn. */
export function useSteps() {
  const back = ref<Step[]>([])
  const forth = ref<Step[]>([])
  function again(from: typeof back, to: typeof back) {
    const step = from.value.at(-1)
    if (!step) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, step()]
  }
  return {
    /** @param step takes back what was just done */
    remember: (step: Step) => {
      back.value = [...back.value, step].slice(-MOST)
      forth.value = []
    },
    canUndo: computed(() => back.value.length > 0),
    canRedo: computed(() => forth.value.length > 0),
    undo: () => again(back, forth),
    redo: () => again(forth, back),
  }
}
