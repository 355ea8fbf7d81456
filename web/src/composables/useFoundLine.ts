import { nextTick, watch } from 'vue'
import { useRoute } from 'vue-router'

/** Who comes by a link to one line (`#line-…`) finds it in sight, and marked. @param shown what the page shows */
export function useFoundLine(shown: () => string | undefined) {
  const route = useRoute()
  watch(
    [shown, () => route.hash],
    async ([here, hash]) => {
      const id = /^#line-([0-9a-f-]+)$/.exec(hash)?.[1]
      if (!here || !id) return
      await nextTick()
      const line = document.querySelector<HTMLElement>(`[data-line="${id}"]`)
      line?.scrollIntoView({ block: 'center' })
      line?.classList.add('found')
    },
    { immediate: true },
  )
}
