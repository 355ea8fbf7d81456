<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import PageComing from '../components/PageComing.vue'
import { useCopy } from '../composables/useCopy'
import { useNotice } from '../composables/useNotice'
import { useOpenHours } from '../composables/useOpenHours'
import { useRemoval } from '../composables/useRemoval'
import { MODES, NOTICES } from '../openHours'
import { lengthWords } from '../reading'
import { clock, list, mediumDay } from '../time'
import { useTitle } from '../composables/useTitle'

/** Open hours as their keeper sees them: the link, what is booked, and what is not sure about what is offered. */
const { id } = defineProps<{ id: string }>()
const { open, error, renew, remove } = useOpenHours(() => id)
useTitle(() => open.value?.title)
const { say, complain } = useNotice()
const copy = useCopy()
const router = useRouter()
const { remove: leaveOut } = useRemoval()
const link = computed(() => `${location.origin}${open.value?.path}`)
const DAYS = { mo: 'Mon', tu: 'Tue', we: 'Wed', th: 'Thu', fr: 'Fri', sa: 'Sat', su: 'Sun' } as const
function week(hours: Record<string, string[][] | undefined>) {
  const said = Object.entries(DAYS)
    .filter(([day]) => hours[day]?.length)
    .map(([day, name]) => `${name} ${hours[day]!.map(range => range.join('–')).join(', ')}`)
  return said.join(' · ') || 'no hours'
}
const facts = computed(() => {
  const one = open.value
  if (!one) return []
  const notice = NOTICES.find(it => it.value === one.noticeMin)?.title ?? lengthWords(one.noticeMin ?? 0)
  return [
    list((one.lengths ?? []).map(lengthWords)),
    one.hosts.length > 1 ? MODES.find(it => it.value === one.mode)?.title : '',
    `notice: ${notice}`,
    one.mostPerDay ? `${one.mostPerDay} a day at most` : '',
    one.mostPerWeek ? `${one.mostPerWeek} a week at most` : '',
    one.location,
    one.callKind === 'fresh' ? 'with a call' : '',
    one.proof ? 'the address is confirmed first' : '',
    one.onlyFrom?.length ? `only for ${list(one.onlyFrom)}` : 'for whoever has the link',
    one.neverFrom?.length ? `not for ${list(one.neverFrom)}` : '',
    one.listed ? 'listed on the public page of each host' : '',
    one.frames?.length ? `may be shown within ${list(one.frames)}` : '',
  ].filter(Boolean)
})
async function renewLink() {
  try {
    await renew()
    say('The link is another one now; the one before is not valid any more.')
  } catch (fault) {
    complain(fault as Error)
  }
}
function removeAll() {
  const title = open.value!.title
  router.push('/open-hours')
  leaveOut(id, `${title} removed. What is booked stays.`, () => remove())
}
</script>

<template>
  <div class="desk">
    <PageComing v-if="!open" name="These open hours" :error="error" />
    <template v-else>
      <p class="eyebrow"><router-link to="/open-hours">Open hours</router-link></p>
      <div class="row spread">
        <h1>{{ open.title }}</h1>
        <v-btn variant="outlined" :to="`/open-hours/${id}/edit`">Edit</v-btn>
      </div>
      <p class="soft">{{ facts.join(' · ') }}</p>
      <p v-if="open.paused" class="carried strong">Paused: nothing can be booked.</p>
      <div class="with-side">
        <section class="sheet" aria-labelledby="booked">
          <h2 id="booked">Booked</h2>
          <ul v-if="open.bookings.length" class="ruled">
            <li v-for="one in open.bookings" :key="one.id">
              <p class="row">
                <span class="strong">{{ mediumDay(one.localStart) }}, {{ clock(one.localStart) }}</span>
                <span>{{ lengthWords(one.lengthMin) }}</span>
                <router-link v-if="one.meetingId" :to="`/meetings/${one.meetingId}`">{{ one.name }}</router-link>
                <span v-else>{{ one.name }}</span>
                <span class="soft small">{{ one.email }}</span>
                <span v-if="open.hosts.length > 1" class="soft small">with {{ list(one.hosts) }}</span>
                <span v-if="one.state === 'held'" class="carried small">waits for the address to be confirmed</span>
                <span v-if="one.state === 'called_off'" class="alarm small">called off</span>
              </p>
              <p v-for="said in one.answers" :key="said.question" class="small soft">
                {{ said.question }} {{ said.answer === true ? 'Yes' : said.answer }}
              </p>
            </li>
          </ul>
          <p v-else class="soft">Nobody has booked a time yet.</p>
        </section>
        <aside class="stack">
          <section aria-labelledby="link">
            <h2 id="link" class="eyebrow">The link</h2>
            <p class="small">Whoever has it sees what is free, and takes a time.</p>
            <p class="row">
              <button type="button" class="quiet" @click="copy(link, 'The link is copied.')">Copy the link</button>
              <a class="quiet" :href="open.path" target="_blank">Look at it</a>
              <button type="button" class="quiet" @click="renewLink">Take another link</button>
            </p>
          </section>
          <section v-if="open.notes.length" aria-labelledby="notes">
            <h2 id="notes" class="eyebrow">For your eyes</h2>
            <p v-for="note in open.notes" :key="note" class="small carried">{{ note }}</p>
          </section>
          <section aria-labelledby="hours">
            <h2 id="hours" class="eyebrow">Hours</h2>
            <p v-for="host in open.hosts" :key="host.personId" class="small">
              <b>{{ host.name }}</b><template v-if="host.agreed"
                >, {{ host.zoneCity }} time: {{ week(host.week ?? host.workingHours ?? {})
                }}{{ host.week ? '' : ' (their working hours)' }}</template
              ><span v-else class="carried"> is asked, and has not agreed yet</span>
            </p>
          </section>
          <section aria-labelledby="more">
            <h2 id="more" class="eyebrow">More</h2>
            <p class="row">
              <button
                type="button"
                class="quiet"
                @click="copy(`${link.split('/book/')[0]}${open.feedPath}`, 'The address is copied.')"
              >
                Copy the calendar address
              </button>
              <button type="button" class="quiet" @click="removeAll">Remove these open hours</button>
            </p>
          </section>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
aside .quiet {
  margin-left: -4px;
}
</style>
