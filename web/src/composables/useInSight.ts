import { computed, ref, watch, type Ref } from 'vue'
import type { Sheet } from '../api/client'
import { findLine } from '../deeds'

/**
 * What was just kept is seen above the box, with its reading and its question, which come with the answer. The box lies
 * over the end of a topic only as long as that is below the window.
 */
export function useInSight(sheet: Ref<Sheet | undefined>) {
  const kept = ref<string | null>(null)
  const shown = computed(() => {
    const line = kept.value && sheet.value && findLine(sheet.value, kept.value)
    return line ? `${line.id} ${line.version} ${line.doubtful?.length ?? 0}` : null
  })
  watch(shown, bring, { flush: 'post' })

  function bring() {
    const box = document.querySelector<HTMLElement>('[data-entry]')
    if (!box?.contains(document.activeElement)) return
    const room = parseFloat(getComputedStyle(document.documentElement).scrollPaddingBottom) || 0
    const below = box.closest('section')!.getBoundingClientRect().bottom + room - innerHeight
    if (below > 0) scrollBy({ top: below })
  }
  return {
    /** @param lineId of what is kept from now on */
    inSight: (lineId: string) => {
      kept.value = lineId
    },
    bring,
  }
}
