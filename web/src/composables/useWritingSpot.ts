import { computed, ref, watch, type Ref } from 'vue'
import type { Sheet } from '../api/client'

/** Stands for what is left over, which is no topic. */
export const LEFT = 'left-over'

/**
 * Where the next line of this person goes. What is being discussed is another thing: it follows the clock, whoever
 * moves that, and takes nobody's place of writing along.
 */
export function useWritingSpot(sheet: Ref<Sheet | undefined>) {
  const canWrite = computed(
    () => !!sheet.value?.may.write && (sheet.value.state === 'in_session' || sheet.value.state === 'closed'),
  )
  const showsLeftOver = computed(
    () =>
      !!sheet.value &&
      (sheet.value.leftOver.length > 0 ||
        sheet.value.leftOverLines.length > 0 ||
        (canWrite.value && sheet.value.topics.length === 0)),
  )
  const discussed = computed(() => (sheet.value?.state === 'in_session' ? (sheet.value.presentTopicId ?? LEFT) : null))
  const first = computed(() => (showsLeftOver.value ? LEFT : (sheet.value?.topics[0]?.id ?? LEFT)))
  const start = computed(() => {
    if (!sheet.value || !canWrite.value) return null
    if (sheet.value.state === 'closed') return sheet.value.topics.at(-1)?.id ?? LEFT
    return sheet.value.presentTopicId ?? first.value
  })
  const chosen = ref<string | null>(null)
  const stands = (id: string) =>
    id === LEFT ? showsLeftOver.value : !!sheet.value?.topics.some(topic => topic.id === id)
  const writing = computed(() =>
    canWrite.value ? (chosen.value && stands(chosen.value) ? chosen.value : start.value) : null,
  )
  // From the beginning on it is this person's own.
  watch(
    [() => sheet.value?.id, canWrite],
    ([id, may], before) => {
      if (id !== before[0]) chosen.value = null
      if (may && !chosen.value) chosen.value = start.value
    },
    { immediate: true },
  )
  return {
    canWrite,
    showsLeftOver,
    discussed,
    writing,
    write: (at: string) => {
      chosen.value = at
    },
  }
}
