import { computed, onBeforeUnmount, watch, type Ref } from 'vue'
import { api, dataOf, type Sheet } from '../api/client'
import { LEFT } from './useWritingSpot'

const AGAIN_MS = 30_000
const LASTS_MS = 800

/**
 * Tells the others where one writes, and who of them writes where.
 * @param writing the topic one writes under, or LEFT; null when one does not
 * @param editing whether something is typed that is not saved yet
 */
export function useWhoWrites(
  sheet: Ref<Sheet | undefined>,
  writing: Ref<string | null>,
  editing: Ref<boolean>,
  me: () => string | undefined,
) {
  const spot = computed(() =>
    sheet.value && writing.value && sheet.value.may.write && sheet.value.state === 'in_session'
      ? { id: sheet.value.id, topicId: writing.value === LEFT ? null : writing.value, editing: editing.value }
      : null,
  )
  // Nothing depends on it: what cannot be told is not told.
  const tell = () => {
    if (!spot.value) return
    const { id, ...body } = spot.value
    dataOf(api.PUT('/meetings/{id}/writing', { params: { path: { id } }, body })).catch(() => undefined)
  }
  // Each line is begun and ended; only what lasts is told.
  let soon: ReturnType<typeof setTimeout> | undefined
  watch(
    () => JSON.stringify(spot.value),
    () => {
      clearTimeout(soon)
      soon = setTimeout(tell, LASTS_MS)
    },
    { immediate: true },
  )
  const timer = setInterval(tell, AGAIN_MS)
  onBeforeUnmount(() => {
    clearInterval(timer)
    clearTimeout(soon)
  })
  const others = computed(() => (sheet.value?.writers ?? []).filter(one => one.id !== me()))
  return {
    others,
    /** Names of those who write there, such as “Ines, Wen”. */
    at: (topicId: string | null) =>
      others.value
        .filter(one => one.topicId === topicId)
        .map(one => one.name.split(' ')[0])
        .join(', '),
  }
}
