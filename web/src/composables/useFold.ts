import { computed, ref } from 'vue'

const NARROW = matchMedia('(max-width: 860px)').matches
const MOST = NARROW ? 3 : 8

/** A long list shows its first few until the rest is asked for; on paper all of it (class `folded` in base.css). */
export function useFold(length: () => number, most = MOST) {
  const open = ref(false)
  // One more than that is not worth a press.
  const folds = computed(() => !open.value && length() > most + 1)
  return {
    folded: (index: number) => folds.value && index >= most,
    rest: computed(() => (folds.value ? length() - most : 0)),
    unfold: () => {
      open.value = true
    },
  }
}
