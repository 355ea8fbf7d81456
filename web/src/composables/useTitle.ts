import { watch } from 'vue'
import { house } from '../house'

/**
 * The page is named by what it shows, once that is known.
 * @param outside whether people without an account see it: there it is the page of the organisation
 */
export function useTitle(name: () => string | null | undefined, outside = false) {
  watch(
    name,
    now => {
      if (now) document.title = `${now} – ${(outside && house) || 'Left Over'}`
    },
    { immediate: true },
  )
}
