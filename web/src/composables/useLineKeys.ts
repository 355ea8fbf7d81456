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

/** Past its neighbours, wherever on the sheet those stand; from the last one back to where one types. */
export function stepLine(by: 1 | -1) {
  const all = [...document.querySelectorAll<HTMLElement>('.line .edit, .entry textarea')]
  const here = all.findIndex(one => one === document.activeElement)
  all[here + by]?.focus()
}

/** Keys of a line that has the focus. @returns what hears them */
export function useLineKeys(line: () => ShownLine, { make, remove, motion, move, indent }: LineDeeds) {
  async function keepFocus(deed: () => void) {
    deed()
    await nextTick()
    document.querySelector<HTMLElement>(`[data-line="${line().id}"] .edit`)?.focus()
  }
  const KEYS: Record<string, () => void> = {
    n: () => make('note'),
    d: () => make('decision'),
    a: () => make('action'),
    Delete: () => {
      stepLine(1)
      remove()
    },
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
