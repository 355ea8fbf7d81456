import { computed, nextTick, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { ProblemError, unsaid } from '../api/client'

/** To the first field at fault, or to the first sentence that says what is wrong. */
export function focusFault(within: Element | null | undefined) {
  const field = within?.querySelector<HTMLElement>('.v-input--error :is(input, textarea)')
  if (field) field.focus()
  else within?.querySelector('.alarm[role=alert]')?.scrollIntoView({ block: 'center' })
}

/** It may be out of sight of the button that was pressed. Typing is not disturbed. */
function goToFault() {
  const pressed = document.activeElement
  if (pressed?.matches('[type=submit]')) focusFault(pressed.closest('form'))
}

/**
 * What is wrong with a form: at which field, and what no field says. Whoever has pressed its button is led there.
 * @param shown the pointers of the fields that show theirs
 */
export function useFaults(error: MaybeRefOrGetter<Error | null | undefined>, shown = /^$/) {
  watch(
    () => toValue(error),
    now => now instanceof ProblemError && nextTick(goToFault),
  )
  return {
    /** The sentence for a field, by its JSON pointer. */
    at(pointer: string) {
      const fault = toValue(error)
      return fault instanceof ProblemError ? fault.at(pointer) : undefined
    },
    rest: computed(() => unsaid(toValue(error), shown)),
  }
}
