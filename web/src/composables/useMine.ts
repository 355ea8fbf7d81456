import { ref } from 'vue'

/**
 * Whose browser this is just now. What is kept in it while it is being typed belongs to them alone: somebody else who
 * signs in here neither sees it nor sends it.
 */
const owner = ref<string | null>(null)

export function useMine() {
  return {
    owner,
    become(personId: string | null) {
      if (owner.value === personId) return
      owner.value = personId
      dispatchEvent(new Event('left-over:owner'))
    },
    /** A name in the browser's storage that is theirs. */
    mine: (name: string) => `left-over:${owner.value ?? 'nobody'}:${name}`,
  }
}
