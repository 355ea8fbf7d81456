import { computed, reactive, ref, watch, type Ref } from 'vue'
import { wallNow } from '../time'
import type { Refusal, Schemas } from './api'

type Times = Schemas['BookableTimes']
export interface Wanted {
  month: string
  timeZone: string
  lengthMin?: number
}

export type FreeTimes = ReturnType<typeof useTimes>

/**
 * The free times of a month, read anew when month, zone or length change; of two answers the later one stands. `around`
 * is a moment on the visitor's wall to begin with.
 */
export function useTimes(zone: Ref<string>, read: (wanted: Wanted) => Promise<Times>, around = '') {
  const times = ref<Times | null>(null)
  const error = ref<Refusal | null>(null)
  const busy = ref(false)
  const month = ref((around || wallNow(zone.value)).slice(0, 7))
  const lengthMin = ref<number | undefined>()
  const day = ref(around.slice(0, 10))
  let latest = 0
  let begun = false

  async function again() {
    const mine = ++latest
    busy.value = true
    error.value = null
    try {
      const found = await read({ month: month.value, timeZone: zone.value, lengthMin: lengthMin.value })
      if (mine !== latest) return
      times.value = found
      lengthMin.value = found.lengthMin
      // Nothing left this month: the visitor begins at the next one that is on offer.
      if (!begun && !found.days.length && found.month < found.lastMonth && !found.paused) {
        const [year, number] = month.value.split('-').map(Number) as [number, number]
        begun = true
        month.value = new Date(Date.UTC(year, number, 1)).toISOString().slice(0, 7)
      }
      begun = true
      if (!found.days.some(one => one.on === day.value)) day.value = found.days[0]?.on ?? ''
    } catch (fault) {
      if (mine === latest) error.value = fault as Refusal
    } finally {
      if (mine === latest) busy.value = false
    }
  }
  watch([month, zone, lengthMin], (now, before) => {
    // The length comes back with the first answer.
    if (before[2] !== undefined || now[0] !== before[0] || now[1] !== before[1]) void again()
  })
  void again()

  return reactive({
    times,
    error,
    busy,
    month,
    lengthMin,
    day,
    again,
    free: computed(() => new Map(times.value?.days.map(one => [one.on, one.times.length]))),
    ofDay: computed(() => times.value?.days.find(one => one.on === day.value)?.times ?? []),
  })
}
