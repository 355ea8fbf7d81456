import { nextTick } from 'vue'
import type { Schemas } from '../api/client'
import type { ShownLine } from '../deeds'

interface LineDeeds {
  make: (kind: Schemas['LineKind']) => void
  remove: () => void
  motion: () => void
  move: (by: 1 | -1) => void
  indent: (to: 0 | 1) => void
}

/** What one walks over with ↑ and ↓: each line by its button for editing, and the box of the next line. */
const WAYS = '[data-line] [data-edit], [data-entry] textarea'
const ways = () => [...document.querySelectorAll<HTMLElement>(WAYS)]

/** From the box to the line above, which is opened; the hand comes back to the box. */
export function openLineAbove() {
  const all = ways()
  all[all.findIndex(one => one === document.activeElement) - 1]?.click()
}

/** Past its neighbours, wherever on the sheet those stand; from the last one back to where one types. */
function stepLine(by: 1 | -1) {
  const all = ways()
  all[all.findIndex(one => one === document.activeElement) + by]?.focus()
}

/** Behind a line, which may be open: the next line, or the box. */
export function wayBehind(line: Element) {
  return ways().find(one => !line.contains(one) && line.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING)
}

const toBox = () => document.querySelector<HTMLElement>('[data-entry] textarea')?.focus()

/** Keys of a line that has the focus. @returns what hears them */
export function useLineKeys(line: () => ShownLine, { make, remove, motion, move, indent }: LineDeeds) {
  async function keepFocus(deed: () => void) {
    deed()
    await nextTick()
    document.querySelector<HTMLElement>(`[data-line="${line().id}"] [data-edit]`)?.focus()
  }
  const KEYS: Record<string, () => void> = {
    n: () => make('note'),
    d: () => make('decision'),
    a: () => make('action'),
    Delete: () => {
      stepLine(1)
      remove()
    },
    Escape: toBox,
    ArrowUp: () => stepLine(-1),
    ArrowDown: () => stepLine(1),
    v: () => line().kind === 'decision' && motion(),
    'Alt+ArrowUp': () => keepFocus(() => move(-1)),
    'Alt+ArrowDown': () => keepFocus(() => move(1)),
    'Alt+ArrowLeft': () => indent(0),
    'Alt+ArrowRight': () => indent(1),
  }
  return (event: KeyboardEvent) => {
    const run = event.ctrlKey || event.metaKey ? undefined : KEYS[(event.altKey ? 'Alt+' : '') + event.key]
    if (!run) return
    event.preventDefault()
    event.stopPropagation()
    run()
  }
}
