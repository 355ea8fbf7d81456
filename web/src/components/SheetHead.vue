<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Sheet } from '../api/client'
import { useSession } from '../composables/useSession'
import { clock, columnDay, list, longDay, mediumDay, ownTime, wallOf } from '../time'
import CallWords from './CallWords.vue'
import IntoSeries from './IntoSeries.vue'
import SeriesMark from './SeriesMark.vue'
import UntoldNote from './UntoldNote.vue'

/** What a sheet is of: series, moment, place and call, the meetings before and after; and whether all is saved. */
const { sheet, unsent, live } = defineProps<{
  sheet: Sheet
  unsent: number | null
  live: boolean
  canUndo: boolean
  canRedo: boolean
}>()
defineEmits<{ change: []; undo: []; redo: [] }>()
const { person: me } = useSession()
const joining = ref(false)

const EYEBROWS = {
  planned: 'Agenda',
  in_session: 'Minutes · in session',
  closed: 'Minutes · draft',
  issued: 'Minutes · issued',
  called_off: 'Called off',
}
const commonTimeFor = ({ seriesId, id: meeting, version, localStart, lengthMin }: Sheet) => ({
  series: seriesId,
  meeting,
  version,
  from: localStart.slice(0, 16),
  length: lengthMin,
})
const otherDay = computed(() => sheet.begunAt && sheet.heldOn && sheet.heldOn !== sheet.localStart.slice(0, 10))
/** Read without a connection. */
const keptAt = computed(() => ('keptAt' in sheet ? new Date(sheet.keptAt as number) : null))
const state = computed(() => (unsent ? `${unsent} unsent` : live ? 'all saved' : 'connecting'))
</script>

<template>
  <header class="top">
    <p class="row spread">
      <span class="eyebrow">{{ EYEBROWS[sheet.state] }}</span>
      <span class="row no-print">
        <span v-if="canUndo || canRedo">
          <button type="button" class="quiet small" :disabled="!canUndo" @click="$emit('undo')">Undo</button>
          <button type="button" class="quiet small" :disabled="!canRedo" @click="$emit('redo')">Redo</button>
        </span>
        <span v-if="unsent !== null" class="small strong" :class="unsent ? 'alarm' : 'fresh'" role="status">{{
          state
        }}</span>
      </span>
    </p>
    <h1 tabindex="-1"><SeriesMark :mark="sheet.mark" />{{ sheet.seriesTitle }}</h1>
    <p v-if="keptAt" class="carried strong no-print" role="status">
      No connection. This is the sheet as you read it last,
      {{ mediumDay(wallOf(keptAt.toISOString(), me?.timeZone ?? 'UTC')) }},
      {{ clock(wallOf(keptAt.toISOString(), me?.timeZone ?? 'UTC')) }}. What you write is kept in this browser, and sent
      later.
    </p>
    <p v-if="otherDay" class="strong">Held {{ longDay(sheet.heldOn!) }}</p>
    <p class="soft">
      <template v-if="otherDay">planned for </template>{{ longDay(sheet.localStart) }}, {{ clock(sheet.localStart) }}–{{
        clock(sheet.localEnd)
      }}
      {{ sheet.zoneCity }} time{{ ownTime(sheet.startsAt, sheet.localStart, me?.timeZone)
      }}<template v-if="sheet.place"> · {{ sheet.place }}</template
      ><template v-if="sheet.equipment.length"> · with {{ list(sheet.equipment) }}</template
      ><template v-if="sheet.call"> · <CallWords :call="sheet.call" /></template> · chair {{ sheet.chair.name }}
    </p>
    <p v-if="sheet.calledOffReason" class="alarm strong">Called off: {{ sheet.calledOffReason }}</p>
    <p class="row small no-print">
      <router-link :to="`/series/${sheet.seriesId}`">The series</router-link>
      <router-link v-if="sheet.state === 'in_session'" :to="`/meetings/${sheet.id}/chair`">For the chair</router-link>
      <button
        v-if="sheet.may.hold && sheet.state === 'planned'"
        type="button"
        class="quiet small"
        @click="$emit('change')"
      >
        Change this meeting
      </button>
      <router-link
        v-if="sheet.may.hold && sheet.state === 'planned'"
        :to="{ path: '/common-time', query: commonTimeFor(sheet) }"
        >Find another time</router-link
      >
      <router-link v-if="sheet.may.hold" :to="{ path: '/series/new', query: { like: sheet.seriesId, once: '1' } }"
        >Again, like this</router-link
      >
      <router-link v-if="sheet.mayJoin" :to="{ path: `/series/${sheet.seriesId}`, query: { change: 'times' } }"
        >Make it a series</router-link
      >
      <button v-if="sheet.mayJoin" type="button" class="quiet small" @click="joining = true">
        Put it into a series
      </button>
      <router-link v-if="sheet.previous" :to="`/meetings/${sheet.previous.id}`"
        >previous: {{ columnDay(sheet.previous.localStart) }}</router-link
      >
      <router-link v-if="sheet.next" :to="`/meetings/${sheet.next.id}`"
        >next: {{ columnDay(sheet.next.localStart) }}</router-link
      >
    </p>
    <IntoSeries v-model="joining" :sheet="sheet" />
    <UntoldNote v-if="sheet.state === 'planned'" :series-id="sheet.seriesId" :runs-it="sheet.may.nameDeputy" />
  </header>
</template>

<style scoped>
.top {
  padding: 0 34px 14px 66px;
}
.top h1:focus {
  outline: none;
}
.top h1 {
  margin: 2px 0 4px;
}
@media (max-width: 860px) {
  .top {
    padding: 0 16px 10px;
  }
}
</style>
