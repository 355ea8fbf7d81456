<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useCopy } from '../composables/useCopy'
import type { usePoll } from '../composables/useTimePolls'
import { useNotice } from '../composables/useNotice'
import { clock, list, mediumDay, shortDay, since } from '../time'
import PollSettle from './PollSettle.vue'

/** What is to be done with a poll: settle it, remind who is silent, look at what is new, share it. */
const { poll, time, doing } = defineProps<{
  poll: Schemas['TimePoll']
  time: Schemas['PolledTime'] | undefined
  doing: ReturnType<typeof usePoll>
}>()
const emit = defineEmits<{ add: [startsAt: string] }>()
const { say, complain } = useNotice()
const copy = useCopy()
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
/** Anyone with the link may have written them: they count once whoever keeps the poll takes them. */
const said = computed(() => poll.people.filter(one => one.saidEmail))
const silent = computed(() => poll.people.filter(one => !one.answered))
const reachable = computed(() => silent.value.filter(one => one.reachable))
const settling = ref(false)
const isOpen = computed(() => poll.state === 'open')

async function settle(wish: Schemas['PollSettlement']) {
  try {
    await doing.settle.run(wish)
    settling.value = false
    say(wish.tell ? 'Settled. The invitations are on their way.' : 'Settled. Nobody is told yet.')
  } catch {
    /* shown in the dialog */
  }
}
async function attempt(deed: () => Promise<unknown>, words: string) {
  try {
    await deed()
    say(words)
  } catch (fault) {
    complain(fault as Error)
  }
}
const remind = () =>
  attempt(() => doing.remind.run(undefined as never), `${list(reachable.value.map(one => one.name))} reminded.`)
const openAgain = () => attempt(() => doing.openAgain.run(undefined as never), 'Open again. Nobody was told.')
const share = (open: boolean, names: boolean) =>
  attempt(
    () => doing.share.run({ open, names }),
    open ? 'Whoever has the link can answer.' : 'The shared link is off; it is not valid any more.',
  )
const address = computed(() => poll.sharedPath && `${location.origin}${poll.sharedPath}`)
</script>

<template>
  <aside class="side stack" aria-label="What to do with it">
    <section v-if="isOpen && time" class="sheet settle stack">
      <h2>Settle on {{ shortDay(time.localStart) }}, {{ clock(time.localStart) }}</h2>
      <p class="small soft">
        {{ poll.aim ?? 'A single meeting' }}{{ poll.location ? `, ${poll.location}` : ''
        }}{{ poll.callKind === 'none' ? '' : ', with a call' }}. You see who is told before anybody is.
      </p>
      <v-btn :disabled="time.past" @click="settling = true"
        >Make it the {{ poll.outcome === 'series' ? 'series' : 'meeting' }}</v-btn
      >
      <PollSettle
        v-model="settling"
        :poll="poll"
        :time="time"
        :error="doing.settle.error.value"
        :busy="doing.settle.busy.value"
        @settle="settle"
      />
    </section>
    <section v-if="poll.settled" class="sheet settle stack">
      <h2>Settled</h2>
      <p>
        <router-link :to="`/meetings/${poll.settled.meetingId}`">Open the sheet</router-link> ·
        <router-link :to="`/series/${poll.settled.seriesId}`">who is asked</router-link>
      </p>
      <template v-if="!poll.settled.told">
        <p class="small carried">Nobody is told yet: send the invitation from there.</p>
        <v-btn variant="outlined" :loading="doing.openAgain.busy.value" @click="openAgain">Open it again</v-btn>
      </template>
    </section>
    <section v-if="isOpen && silent.length" aria-labelledby="silent">
      <h2 id="silent" class="eyebrow">Still silent</h2>
      <ul>
        <li v-for="one in silent" :key="one.id">
          {{ one.name }} <span class="soft small">{{ ROLES[one.role] }}{{ one.reachable ? '' : ', no address' }}</span>
        </li>
      </ul>
      <button
        v-if="reachable.length && !poll.over"
        type="button"
        class="quiet"
        :disabled="doing.remind.busy.value"
        @click="remind"
      >
        Remind
        {{ reachable.length === 1 ? reachable[0]!.name : reachable.length === 2 ? 'both' : `all ${reachable.length}` }}
      </button>
    </section>
    <section v-if="poll.news.length" aria-labelledby="news">
      <h2 id="news" class="eyebrow">New since you looked</h2>
      <p v-for="one in poll.news" :key="one.name + one.at" class="small">
        <b>{{ one.name }}</b>, {{ since(one.at) }}: {{ one.said
        }}<template v-if="one.comment">, “{{ one.comment }}”</template>
      </p>
    </section>
    <section v-if="poll.suggestions.length" aria-labelledby="suggested">
      <h2 id="suggested" class="eyebrow">Other times suggested</h2>
      <div v-for="one in poll.suggestions" :key="one.startsAt" class="suggestion">
        <span class="strong">{{ mediumDay(one.localStart) }}, {{ clock(one.localStart) }}</span>
        <p class="small soft">
          by {{ list(one.names) }}{{ one.against.length ? `; ${list(one.against)} cannot` : '' }}; {{ one.free }} known
          to be free
        </p>
        <button v-if="isOpen" type="button" class="quiet small" @click="emit('add', one.startsAt)">
          Put it to everybody<span class="visually-hidden">: {{ mediumDay(one.localStart) }}</span>
        </button>
      </div>
    </section>
    <section v-if="said.length" aria-labelledby="addresses">
      <h2 id="addresses" class="eyebrow">Addresses given by the shared link</h2>
      <p v-for="one in said" :key="one.id" class="small">
        {{ one.name }}: {{ one.saidEmail }}
        <button
          type="button"
          class="quiet small"
          :aria-label="`Take the address of ${one.name}`"
          @click="attempt(() => doing.takeAddress.run(one.id), `${one.name} can be mailed from now on.`)"
        >
          Take it
        </button>
      </p>
    </section>
    <section v-if="isOpen" aria-labelledby="shared">
      <h2 id="shared" class="eyebrow">Shared link</h2>
      <template v-if="address">
        <p class="small">
          Whoever has it can answer; {{ poll.sharesNames ? 'it shows who is expected' : 'it shows no names' }}.
        </p>
        <p class="row">
          <button type="button" class="quiet" @click="copy(address, 'The link is copied.')">Copy the link</button
          ><button type="button" class="quiet" @click="share(true, !poll.sharesNames)">
            {{ poll.sharesNames ? 'Show no names' : 'Show who is expected' }}</button
          ><button type="button" class="quiet" @click="share(false, false)">Turn it off</button>
        </p>
      </template>
      <button
        v-else
        type="button"
        class="quiet"
        @click="
          share(
            true,
            poll.people.some(one => !one.reachable),
          )
        "
      >
        Turn on a link for anyone who has it
      </button>
    </section>
  </aside>
</template>

<style scoped>
.settle {
  border-left: 4px solid var(--gold);
}
.suggestion {
  padding: 6px 0;
}
.side .quiet {
  margin-left: -4px;
}
</style>
