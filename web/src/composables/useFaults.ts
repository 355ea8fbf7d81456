import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { ProblemError, unsaid } from '../api/client'

/**
 * What is wrong with a form: at which field, and what no field says.
 * @param shown the pointers of the fields that show theirs
 */
export function useFaults(error: MaybeRefOrGetter<Error | null | undefined>, shown = /^$/) {
  return {
    /** The sentence for a field, by its JSON pointer. */
    at(pointer: string) {
      const fault = toValue(error)
      return fault instanceof ProblemError ? fault.at(pointer) : undefined
    },
    rest: computed(() => unsaid(toValue(error), shown)),
  }
}
