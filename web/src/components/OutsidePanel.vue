<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { base64 } from '../composables/useCalendars'
import { useNotice } from '../composables/useNotice'
import { useOutside } from '../composables/useOutside'
import { clock, mediumDay } from '../time'
import { ANSWERS } from '../answers'

/** Invitations of others: answered from here, kept as busy time, with a sheet if wanted. */
const { meetings, add, isAdding, offer, answer, isAnswering, keepSheets, dismiss } = useOutside()
const { say, complain } = useNotice()
const router = useRouter()

type Outside = Schemas['OutsideMeeting']
// Loaded only where something is to be answered: most days nothing is.
const OutsideAnswer = defineAsyncComponent(() => import('./OutsideAnswer.vue'))
const changing = ref<string | null>(null)
const asks = (meeting: Outside) => !meeting.calledOff && (meeting.answer === 'none' || changing.value === meeting.id)

async function reply(meeting: Outside, wish: Schemas['OutsideAnswer']) {
  try {
    await answer({ id: meeting.id, ...wish })
    changing.value = null
    say(`${meeting.organizer} is told.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
async function offerTo(meeting: Outside, wish: Schemas['OutsideOffer']) {
  try {
    await offer({ id: meeting.id, ...wish })
    changing.value = null
    say(`${meeting.organizer} is offered that time. Nothing changes until they take it.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
async function keep(meeting: Outside) {
  try {
    router.push(`/series/${(await keepSheets({ id: meeting.id, seriesId: newKey() })).id}`)
  } catch (fault) {
    complain(fault as Error)
  }
}
async function take(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return
  try {
    await add(await base64(file))
    say('The invitation is added.')
  } catch (fault) {
    complain(fault as Error)
  }
  field.value = ''
}
</script>

<template>
  <section aria-labelledby="outside">
    <div class="row spread">
      <h2 id="outside">From elsewhere</h2>
      <label class="quiet small file"
        >{{ isAdding ? 'Reading…' : 'Add an invitation file'
        }}<input type="file" accept=".ics,text/calendar" class="visually-hidden" @change="take"
      /></label>
    </div>
    <ul class="ruled">
      <li v-for="meeting in meetings" :key="meeting.id" class="meeting">
        <p>
          <span class="strong" :class="{ off: meeting.calledOff }">{{ meeting.title }}</span>
          {{ ' ' }}<span class="small soft">by {{ meeting.organizer }}</span>
        </p>
        <p class="small soft">
          <template v-if="meeting.calledOff"
            ><span class="alarm">called off by {{ meeting.organizer }}</span>
            <button
              type="button"
              class="quiet small"
              :aria-label="`Dismiss: ${meeting.title}`"
              @click="dismiss(meeting.id)"
            >
              Dismiss
            </button></template
          >
          <template v-else
            >{{ mediumDay(meeting.dates[0]!.localStart) }}, {{ clock(meeting.dates[0]!.localStart) }}–{{
              clock(meeting.dates[0]!.localEnd)
            }}
            {{ meeting.zoneCity }}<template v-if="meeting.dates.length > 1"> and on</template
            ><template v-if="meeting.location"> · {{ meeting.location }}</template></template
          >
        </p>
        <OutsideAnswer
          v-if="asks(meeting)"
          :meeting="meeting"
          :busy="isAnswering"
          @answer="wish => reply(meeting, wish)"
          @offer="wish => offerTo(meeting, wish)"
        />
        <p v-else-if="!meeting.calledOff" class="small row">
          <span
            >{{ ANSWERS[meeting.answer].you
            }}<template v-if="meeting.dates.some(date => date.answer !== meeting.answer)"
              >, but
              {{
                meeting.dates
                  .filter(date => date.answer !== meeting.answer)
                  .map(date => `${ANSWERS[date.answer].you} on ${mediumDay(date.localStart)}`)
                  .join(', ')
              }}</template
            ></span
          >
          <button
            type="button"
            class="quiet small"
            :aria-label="`Change the answer to ${meeting.title}`"
            @click="changing = meeting.id"
          >
            Change
          </button>
        </p>
        <p v-if="!meeting.calledOff" class="small">
          <router-link v-if="meeting.seriesId" :to="`/series/${meeting.seriesId}`">Its sheets</router-link
          ><button
            v-else
            type="button"
            class="quiet small"
            :aria-label="`Keep sheets for it here: ${meeting.title}`"
            @click="keep(meeting)"
          >
            Keep sheets for it here
          </button>
        </p>
      </li>
    </ul>
    <p v-if="!meetings.length" class="small soft">
      Invitations of others, handed on to this address or added as a file, can be answered here.
    </p>
  </section>
</template>

<style scoped>
.meeting {
  display: grid;
  gap: 3px;
  padding: 8px 0;
}
.meeting p > .quiet {
  margin-left: -4px;
}
.off {
  text-decoration: line-through;
}
.file {
  cursor: pointer;
}
.file:focus-within {
  outline: 2px solid var(--pine);
  outline-offset: 2px;
}
</style>
