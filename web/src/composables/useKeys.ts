import { onBeforeUnmount, onMounted, shallowReactive } from 'vue'

/**
 * `when` says whether it does anything for this person just now; without it, it always does. One without `run` is heard
 * elsewhere, and only listed here. One that is heard `anywhere` is heard in fields, too.
 */
export interface Key {
  key: string
  label: string
  when?: () => boolean
  run?: () => void
  anywhere?: boolean
}

const active = shallowReactive<Key[]>([])

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

/**
 * Small letters that come closer than this are typed, not pressed: whoever types where no field is wants no deed of
 * them. Any other key, and one that is heard elsewhere, ends such a run.
 */
const RUN_MS = 150
let letterAt = -RUN_MS
function isTyped({ key, timeStamp }: KeyboardEvent, elsewhere: boolean) {
  if (elsewhere || !/^[\p{Ll} ]$/u.test(key)) {
    letterAt = -RUN_MS
    return false
  }
  const typed = timeStamp - letterAt < RUN_MS
  if (typed || key !== ' ') letterAt = timeStamp
  return typed
}

addEventListener('keydown', event => {
  const inField = isTyping(event.target)
  const elsewhere = event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey
  const typed = isTyped(event, elsewhere || inField)
  if (elsewhere || document.querySelector('.v-dialog.v-overlay--active')) return
  // A space would press the button a letter before it has led to.
  if (typed) return event.preventDefault()
  const found = active.findLast(
    key => key.run && key.key === event.key && (!inField || key.anywhere) && (key.when?.() ?? true),
  )
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
