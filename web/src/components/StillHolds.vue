<script setup lang="ts">
import { ref } from 'vue'
import { useMoveMeeting, useStillHolds } from '../composables/useCommonTime'
import { useNotice } from '../composables/useNotice'
import { clock, list, mediumDay } from '../time'

/** Does the time still hold? Coming meetings that clash now, each with the nearest time that suits. */
const { seriesId } = defineProps<{ seriesId: string }>()
const { checked, isChecking, checkAgain } = useStillHolds(() => seriesId, true)
const { move } = useMoveMeeting()
const { say, complain } = useNotice()
const moving = ref('')

async function moveTo(clash: NonNullable<typeof checked.value>['clashes'][number]) {
  moving.value = clash.meetingId
  try {
    await move({ id: clash.meetingId, version: clash.version, localStart: clash.repair!.localStart.slice(0, 16) })
    const to = clash.repair!.localStart
    say(`Moved to ${mediumDay(to)}, ${clock(to)}. Nobody is told until you send the invitation again.`)
  } catch (fault) {
    complain(fault as Error)
  } finally {
    moving.value = ''
  }
}
</script>

<template>
  <section aria-labelledby="holds" class="holds">
    <div class="row spread">
      <h2 id="holds">Does the time still hold?</h2>
      <span class="row"
        ><router-link class="small" :to="`/common-time?series=${seriesId}`">Find another time</router-link
        ><button type="button" class="quiet small" :disabled="isChecking" @click="checkAgain()">
          Check again
        </button></span
      >
    </div>
    <p v-if="checked && checked.clashes.length === 0" class="soft">
      <template v-if="checked.checked">
        Yes: nobody who must come is busy at
        {{ checked.checked === 1 ? 'the one meeting' : `any of the ${checked.checked} meetings` }} of the next
        {{ checked.weeks }} weeks, as far as calendars tell.
      </template>
      <template v-else>No coming meeting to check.</template>
    </p>
    <ul v-else-if="checked" class="ruled">
      <li v-for="clash in checked.clashes" :key="clash.meetingId" class="row spread">
        <span
          ><router-link class="strong" :to="`/meetings/${clash.meetingId}`"
            >{{ mediumDay(clash.localStart) }}, {{ clock(clash.localStart) }}</router-link
          >
          {{ ' ' }}<span class="alarm">{{ list(clash.busy.map(one => one.name)) }} busy</span></span
        >
        <v-btn
          v-if="clash.repair"
          size="small"
          variant="outlined"
          :loading="moving === clash.meetingId"
          @click="moveTo(clash)"
          >Move to {{ mediumDay(clash.repair.localStart) }}, {{ clock(clash.repair.localStart) }}</v-btn
        >
        <span v-else class="small soft">no time near it suits all</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.holds {
  margin-top: 20px;
  padding-top: 14px;
  border-top: 1px solid var(--line);
}
</style>
