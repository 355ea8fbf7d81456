import { computed, ref, watch, type Ref } from 'vue'
import { clock, longDay, wallOf, zoneCity } from '../time'

const device = Intl.DateTimeFormat().resolvedOptions().timeZone
const KEPT = 'left-over:zone'

/**
 * The zone times are shown in: what the visitor has chosen before, else the one that is known of them, else where this
 * device is. `near` are the zones that are offered first.
 */
export function useZone(near: Ref<string[]>, known: () => string | undefined = () => undefined) {
  const all = Intl.supportedValuesOf('timeZone')
  const kept = sessionStorage.getItem(KEPT)
  const zone = ref(kept && all.includes(kept) ? kept : device)
  const keep = (chosen: string) => sessionStorage.setItem(KEPT, chosen)
  watch(known, theirs => theirs && !sessionStorage.getItem(KEPT) && (zone.value = theirs), { immediate: true })
  watch(zone, chosen => chosen !== known() && keep(chosen))
  const first = computed(() => [...new Set([device, zone.value, ...near.value])])
  return {
    zone,
    first,
    all,
    place: computed(() => zoneCity(zone.value)),
    wall: (instant: string) => wallOf(instant, zone.value),
    day: (instant: string) => longDay(wallOf(instant, zone.value)),
    time: (instant: string) => clock(wallOf(instant, zone.value)),
    /** "Monday 7 December 2026, 14:00" */
    moment: (instant: string) => `${longDay(wallOf(instant, zone.value))}, ${clock(wallOf(instant, zone.value))}`,
  }
}
