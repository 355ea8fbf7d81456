/**
 * The hand never falls to the page: where the application moves what has the focus, that keeps it; where it takes it
 * away, what stands next to its place takes it, but no field: there the next key would write, and Ctrl+Z would not take
 * back what was just done. Nothing is done where somebody lets go of it themselves.
 */
const FOCUSABLE = 'a[href], button:not(:disabled), [tabindex="0"]:not(input, textarea)'
let last: HTMLElement | null = null
let around: HTMLElement[] = []

function takeUp(target: EventTarget | null) {
  last = target instanceof HTMLElement && target !== document.body ? target : null
  around = []
  for (let one = last?.parentElement; one; one = one.parentElement) around.push(one)
}

/** Whether `one` begins behind `other` begins. */
const follows = (one: Node, other: Node) => !!(other.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING)
const isSeen = (one: HTMLElement) => one.tabIndex >= 0 && one.offsetParent !== null

/** In the smallest of what stood around it and still stands: what follows, else what goes before. */
function neighbour(before: Node | null, after: Node | null): HTMLElement | null {
  for (const room of around.filter(one => one.isConnected)) {
    if (room.matches('main')) return room // another page
    if (room.matches('.v-overlay__content, body')) return null
    const all = [...room.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isSeen)
    const isBehind = (one: Node) =>
      after ? !follows(after, one) : !!before && follows(one, before) && !before.contains(one)
    const found = all.find(isBehind) ?? all.at(-1)
    if (found) return found
  }
  return null
}

function mend(changes: MutationRecord[]) {
  if (!last || document.activeElement !== document.body) return
  const gone = changes.find(({ removedNodes }) => [...removedNodes].some(node => node.contains(last)))
  if (!gone) return
  const next = last.isConnected ? last : neighbour(gone.previousSibling, gone.nextSibling)
  next?.focus({ preventScroll: true })
}

/** From now on, for the whole page. */
export function keepFocus() {
  addEventListener('focusin', event => takeUp(event.target))
  // Who presses beside everything means it.
  addEventListener('pointerdown', () => takeUp(null), { capture: true })
  new MutationObserver(mend).observe(document.body, { childList: true, subtree: true })
}
