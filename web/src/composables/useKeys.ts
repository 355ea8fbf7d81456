import { onBeforeUnmount, onMounted, shallowReactive } from 'vue'

/**
 * `when` says whether it does anything for this person just now; without it, it always does. One without `run` is heard
 * elsewhere, and only listed here.
 */
export interface Key {
  key: string
  label: string
  when?: () => boolean
  run?: () => void
}

const active = shallowReactive<Key[]>([])

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

addEventListener('keydown', event => {
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    isTyping(event.target) ||
    document.querySelector('.v-dialog.v-overlay--active')
  )
    return
  const found = active.findLast(key => key.run && key.key === event.key && (key.when?.() ?? true))
  if (!found?.run) return
  event.preventDefault()
  found.run()
})

/** The keys a screen listens to while it stands; `?` lists all that are active. */
export function useKeys(keys: Key[]) {
  onMounted(() => active.push(...keys))
  onBeforeUnmount(() => keys.forEach(key => active.splice(active.indexOf(key), 1)))
}

export const activeKeys = active
