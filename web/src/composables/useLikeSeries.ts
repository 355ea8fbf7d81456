import { useQuery } from '@tanstack/vue-query'
import { v7 as newKey } from 'uuid'
import { watch, type Ref } from 'vue'
import { api, dataOf, type Schemas, type Series } from '../api/client'
import { callForm } from '../calls'
import { formOf, type RunForm } from '../rule'

/** What is taken from the series another is begun like. */
interface Begun {
  title: string
  purpose: string
  place: string
  placeId: string | null
  beforeMin: number
  afterMin: number
  alsoPlaceIds?: string[]
  call?: ReturnType<typeof callForm>
  door?: Schemas['Door']
  mark?: Schemas['Mark'] | null
  wording?: string | null
  options?: Schemas['Options']
  keeperId: string
  chairId: string
  members: Schemas['MemberWish'][]
  groups: Schemas['AskedGroup'][]
  guests: Schemas['SeriesGuest'][]
  run: RunForm
}

/** Fills the form of a new series from one there is, unless something was typed into it before. */
export function useLikeSeries<F extends Begun & { id: string }>(
  id: string | null,
  once: boolean,
  form: Ref<F>,
  untouched: string,
  me: string,
) {
  const reading = useQuery({
    queryKey: ['series', id],
    enabled: id !== null,
    queryFn: () => dataOf(api.GET('/series/{id}', { params: { path: { id: id! } } })),
  })
  watch(
    reading.data,
    like => {
      if (like && form.value.id === untouched && !form.value.title) Object.assign(form.value, begun(like, once, me))
    },
    { immediate: true },
  )
  return { like: reading.data, error: reading.error }
}

function begun(like: Series, once: boolean, me: string): Begun {
  const run = formOf(like, [])
  return {
    title: like.title,
    purpose: like.purpose ?? '',
    place: like.place ?? '',
    placeId: like.heldPlace?.id ?? null,
    beforeMin: like.beforeMin,
    afterMin: like.afterMin,
    alsoPlaceIds: like.alsoHeld.map(place => place.id),
    call: callForm(like.call, like.callKind, like.callDial),
    door: { ...like.door },
    mark: like.mark,
    wording: like.wording,
    options: { ...like.options },
    keeperId: me,
    chairId: like.may.change ? like.chair.id : me,
    members: like.members
      .filter(one => !one.guest && !one.viaGroupId)
      .map(({ personId, role }) => ({ personId, role })),
    groups: like.groups.map(one => ({ groupId: one.id, role: one.role })),
    guests: like.members
      .filter(one => one.guest)
      .map(one => ({ id: newKey(), name: one.name, email: one.email!, role: one.role })),
    run: once ? { ...run, repeat: 'once' } : run,
  }
}
