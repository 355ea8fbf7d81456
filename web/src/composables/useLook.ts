import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { emptyLook, nextMonday, runWishOf, wishOf, type Look } from '../commonTime'
import { wallNow } from '../time'
import { useDraft } from './useDraft'
import { useSeries } from './useSeries'
import { useSession } from './useSession'

const PAUSE_MS = 250
const copyOf = (look: Look): Look => JSON.parse(JSON.stringify(look))

/**
 * What is looked for on the page of common times: kept while one comes and goes, begun from the series, meeting or
 * offer one came from, and asked for when one has stopped changing it.
 */
export function useLook() {
  const { person: me } = useSession()
  const { query } = useRoute()
  // Of a series or one of its meetings: its people, its length, and its own times do not count against it.
  const seriesId = String(query.series ?? '')
  const meetingId = String(query.meeting ?? '')
  const except = meetingId ? { exceptMeetingId: meetingId } : seriesId ? { exceptSeriesId: seriesId } : {}
  const { series } = useSeries(() => seriesId)
  const timeZone = computed(() => series.value?.timeZone ?? me.value!.timeZone)
  const { draft: look } = useDraft<Look>(`common-time-${me.value!.id}${seriesId}`, () => ({
    ...emptyLook(me.value!.timeZone),
    people: seriesId ? [] : [{ personId: me.value!.id, role: 'required' }],
  }))
  // The length, people and hours of last time are there again; its days, when they are over, are not.
  if (look.value.fromDay < wallNow(timeZone.value).slice(0, 10)) look.value.fromDay = nextMonday(timeZone.value)
  watch(
    series,
    found => {
      if (!found || look.value.people.length) return
      look.value = {
        ...look.value,
        lengthMin: found.lengthMin,
        beforeMin: found.beforeMin,
        afterMin: found.afterMin,
        place: found.heldPlace?.id ?? 'none',
        people: found.members.filter(one => one.role !== 'informed').map(({ personId, role }) => ({ personId, role })),
      }
    },
    { immediate: true },
  )
  // One time that somebody offers.
  if (query.day) look.value.fromDay = String(query.day)
  // A series that is being made.
  if (query.people)
    look.value = {
      ...look.value,
      people: String(query.people)
        .split(',')
        .filter(Boolean)
        .map(personId => ({ personId, role: 'required' })),
      groups: [],
      lengthMin: Number(query.length) || look.value.lengthMin,
      across: query.across === '1',
    }

  const page = ref(1)
  const settled = ref(copyOf(look.value))
  let timer: ReturnType<typeof setTimeout>
  watch(
    look,
    now => {
      clearTimeout(timer)
      page.value = 1
      timer = setTimeout(() => {
        settled.value = copyOf(now)
      }, PAUSE_MS)
    },
    { deep: true },
  )
  const first = computed(() => wishOf(settled.value, timeZone.value, except))
  return {
    look,
    page,
    series,
    meetingId,
    timeZone,
    /** The search as it is asked for, nothing while something is missing; its beginning, for one time; and for runs. */
    wish: computed(() => first.value && { ...first.value, page: page.value }),
    first,
    runWish: computed(() => runWishOf(settled.value, first.value)),
    isAlone: computed(() => {
      const { people, groups, guests } = look.value
      return people.length === 1 && people[0]!.personId === me.value?.id && groups.length + guests.length === 0
    }),
  }
}
