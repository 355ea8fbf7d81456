import { onBeforeUnmount, onMounted } from 'vue'

// A box with something in it takes back its own typing.
function isItsOwn(target: EventTarget | null) {
  if (document.querySelector('.v-dialog.v-overlay--active')) return true
  const typing = target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement
  return typing && target.value !== ''
}

/** Ctrl+Z and Ctrl+Shift+Z (or Ctrl+Y) over what was done on a page. */
export function useUndoKeys(undo: () => void, redo: () => void) {
  function onKey(event: KeyboardEvent) {
    const key = event.key.toLowerCase()
    if (!(event.ctrlKey || event.metaKey) || !['z', 'y'].includes(key) || isItsOwn(event.target)) return
    event.preventDefault()
    if (key === 'y' || event.shiftKey) redo()
    else undo()
  }
  onMounted(() => addEventListener('keydown', onKey))
  onBeforeUnmount(() => removeEventListener('keydown', onKey))
}
