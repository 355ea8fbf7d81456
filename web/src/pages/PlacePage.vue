<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import CalendarList from '../components/CalendarList.vue'
import PlaceForm from '../components/PlaceForm.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { usePeople } from '../composables/usePeople'
import { usePlace, usePlaces } from '../composables/usePlaces'
import { useRemoval } from '../composables/useRemoval'
import { useSession } from '../composables/useSession'
import { DAYS } from '../commonTime'
import { clock, mediumDay } from '../time'
import { useTitle } from '../composables/useTitle'

const { id } = defineProps<{ id: string }>()
const { place, error } = usePlace(() => id)
useTitle(() => place.value?.name)
const { person: me } = useSession()
const { people } = usePeople()
const editing = ref(false)
const { remove: removePlace } = usePlaces()
const { remove } = useRemoval()
const router = useRouter()
function drop() {
  remove(id, `${place.value!.name} is removed.`, () => removePlace(id))
  router.push('/people?show=places')
}
const days = computed(() => {
  const byDay = new Map<string, NonNullable<typeof place.value>['taken']>()
  for (const row of place.value?.taken ?? [])
    byDay.set(row.localStart.slice(0, 10), [...(byDay.get(row.localStart.slice(0, 10)) ?? []), row])
  return [...byDay]
})
const opening = computed(() => {
  const hours = place.value?.openingHours
  if (!hours) return 'always open'
  const ranges = (day: keyof typeof hours) => (hours[day] ?? []).map(range => range.join('–')).join(', ')
  return DAYS.map(({ code: day, name }) => `${name.slice(0, 2)} ${ranges(day) || 'closed'}`).join(' · ')
})
</script>

<template>
  <div class="desk">
    <ProblemNote :error="error" />
    <template v-if="place">
      <div class="row spread">
        <div>
          <p class="eyebrow">{{ place.kind === 'room' ? 'Room' : 'Equipment' }} · {{ place.zoneCity }} time</p>
          <h1>{{ place.name }}</h1>
          <p class="soft">
            <template v-if="place.seats">{{ place.seats }} seats</template
            ><template v-if="place.equipment.length"> · {{ place.equipment.join(', ') }}</template
            ><template v-if="place.whereabouts"> · {{ place.whereabouts }}</template>
            <template v-if="place.lookedAfterBy">
              · looked after by
              <router-link :to="`/people/${place.lookedAfterBy.id}`">{{
                place.lookedAfterBy.name
              }}</router-link></template
            >
          </p>
          <p class="small soft">{{ opening }}</p>
        </div>
        <span v-if="me?.admin" class="row buttons"
          ><v-btn variant="outlined" @click="editing = true">Edit</v-btn
          ><v-btn variant="text" @click="drop()">Remove</v-btn></span
        >
      </div>
      <div class="two page">
        <section class="sheet" aria-labelledby="taken">
          <h2 id="taken">Taken in the next two weeks</h2>
          <p v-if="days.length === 0" class="soft">Nothing holds it.</p>
          <div v-for="[day, rows] in days" :key="day" class="day">
            <h3 class="eyebrow">{{ mediumDay(day) }}</h3>
            <ul>
              <li v-for="row in rows" :key="row.startsAt">
                <b>{{ clock(row.localStart) }}–{{ clock(row.localEnd) }}</b>
                {{ row.title ?? (row.kind === 'meeting' ? 'a meeting' : 'by its calendar') }}
              </li>
            </ul>
          </div>
        </section>
        <CalendarList v-if="place.mayKeepCalendars" :owner="{ kind: 'place', id }" :enabled="place.mayKeepCalendars" />
      </div>
      <PlaceForm v-model="editing" :place="place" :people="people ?? []" :time-zone="place.timeZone" />
    </template>
  </div>
</template>

<style scoped>
.page {
  margin-top: 18px;
}
.day {
  margin-top: 12px;
}
</style>
