<script setup lang="ts">
import { useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { useHolds } from '../composables/useCommonTime'
import { useNotice } from '../composables/useNotice'
import { useCreateSeries } from '../composables/useSeries'
import { clock, mediumDay } from '../time'

/** A time that is held: made the meeting, with its people and its place, or released. */
const { hold } = defineProps<{ hold: Schemas['Hold'] }>()
const { release, keep } = useHolds()
const { create, isCreating } = useCreateSeries()
const { say, complain } = useNotice()
const router = useRouter()
const lengthMin = () => Math.round((new Date(hold.endsAt).getTime() - new Date(hold.startsAt).getTime()) / 60_000)
const members = () => hold.people.map(({ personId, role }) => ({ personId, role }))
const key = newKey()

async function make() {
  try {
    const run = {
      localStart: hold.localStart.slice(0, 16),
      timeZone: hold.timeZone,
      lengthMin: lengthMin(),
      rule: null,
      dates: [],
    }
    const series = await create({
      id: key,
      title: hold.title,
      run,
      members: members(),
      placeId: hold.place?.id ?? null,
      beforeMin: hold.beforeMin,
      afterMin: hold.afterMin,
      holdId: hold.id,
    })
    say('The hold is now a meeting. Nobody is told until you send the invitation.')
    router.push(`/series/${series.id}`)
  } catch (fault) {
    complain(fault as Error)
  }
}
function letGo() {
  release(hold.id, {
    onSuccess: () =>
      say(`${mediumDay(hold.localStart)}, ${clock(hold.localStart)} is no longer held.`, () => {
        keep({
          id: newKey(),
          title: hold.title,
          startsAt: hold.startsAt,
          lengthMin: lengthMin(),
          timeZone: hold.timeZone,
          people: members(),
          beforeMin: hold.beforeMin,
          afterMin: hold.afterMin,
          expiresOn: null,
          ...(hold.place ? { placeId: hold.place.id } : {}),
        }).catch(complain)
      }),
  })
}
</script>

<template>
  <li>
    <p>
      <span class="strong">{{ hold.title }}</span>
      {{ ' '
      }}<span class="small soft"
        >held: {{ mediumDay(hold.localStart) }}, {{ clock(hold.localStart) }}–{{ clock(hold.localEnd)
        }}<template v-if="hold.place"> · {{ hold.place.name }}</template></span
      >
    </p>
    <p class="row">
      <v-btn
        size="small"
        variant="outlined"
        :loading="isCreating"
        :aria-label="`Make it the meeting: ${hold.title}`"
        @click="make"
        >Make it the meeting</v-btn
      >
      <button type="button" class="quiet small" :aria-label="`Release: ${hold.title}`" @click="letGo">Release</button>
    </p>
  </li>
</template>

<style scoped>
p + p {
  margin-top: 4px;
  align-items: center;
}
</style>
