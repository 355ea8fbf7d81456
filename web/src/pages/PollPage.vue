<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import FormDialog from '../components/FormDialog.vue'
import MomentField from '../components/MomentField.vue'
import PageComing from '../components/PageComing.vue'
import PollEdit from '../components/PollEdit.vue'
import PollPlank from '../components/PollPlank.vue'
import PollSide from '../components/PollSide.vue'
import PollTable from '../components/PollTable.vue'
import PollWhom from '../components/PollWhom.vue'
import { useNotice } from '../composables/useNotice'
import { useKeys } from '../composables/useKeys'
import { usePeople } from '../composables/usePeople'
import { usePoll } from '../composables/useTimePolls'
import type { Schemas } from '../api/client'
import { clock, count, instantOf, longDay, mediumDay, wallOf } from '../time'
import { useTitle } from '../composables/useTitle'

/** A poll as whoever keeps it sees it: the times as planks of people, best first, and what to do with them. */
const { id } = defineProps<{ id: string }>()
const doing = usePoll(() => id)
const { poll, error, noteSeen } = doing
useTitle(() => poll.value && `Times for ${poll.value.title}`)
const { people: all } = usePeople()
const { say, complain } = useNotice()

const people = computed(() => new Map(poll.value?.people.map(one => [one.id, one])))
const answered = computed(() => poll.value?.people.filter(one => one.answered).length ?? 0)
const chosenId = ref('')
const chosen = computed(
  () => poll.value?.candidates.find(one => one.id === chosenId.value) ?? poll.value?.candidates.find(one => !one.past),
)
const asTable = ref(false)
const isOpen = computed(() => poll.value?.state === 'open')

// What was new while one looked has been looked at when one leaves.
onBeforeUnmount(() => {
  if (poll.value?.news.length) noteSeen()
})

const editing = ref(false)
const asking = ref(false)
const adding = ref(false)
const closing = ref(false)
const added = ref({ at: '' })
const word = ref({ word: '' })
watch(adding, shown => {
  if (shown) added.value = { at: '' }
})

/** @returns whether it was done; what is wrong stands where it was entered */
async function done(deed: Promise<unknown>, words: string) {
  try {
    await deed
    say(words)
    return true
  } catch {
    return false
  }
}
const times = () => poll.value!.candidates.map(({ id: key, startsAt }) => ({ id: key, startsAt }))
async function add(startsAt: string) {
  const wish = { candidates: [...times(), { id: newKey(), startsAt }] }
  const kept = await done(doing.setTimes.run(wish), 'Added. Who has answered is asked for it alone.')
  if (kept) adding.value = false
  else if (!adding.value && doing.setTimes.error.value) complain(doing.setTimes.error.value)
}
function remove() {
  const time = chosen.value!
  const before = times()
  const wish = { candidates: before.filter(one => one.id !== time.id) }
  doing.setTimes.run(wish).then(() => say('Removed, with what was answered to it.'), complain)
}
function enter(personId: string, candidateId: string, answer: Schemas['GivenAnswer']['answer']) {
  const comment = people.value.get(personId)?.comment ?? null
  doing.enter.run({ personId, answers: [{ candidateId, answer }], comment }).catch(complain)
}
async function save(wish: Schemas['ChangedTimePoll'] & { version: number }) {
  if (await done(doing.change.run(wish), 'Saved.')) editing.value = false
}
async function askMore(wish: Schemas['PollPeople']) {
  if (await done(doing.setPeople.run(wish), 'Saved. Who is new has been asked.')) asking.value = false
}
async function close() {
  if (await done(doing.close.run({ word: word.value.word || null }), 'Closed without a time.')) closing.value = false
}
const step = (by: number) => {
  const shown = poll.value?.candidates ?? []
  const at = shown.findIndex(one => one.id === chosen.value?.id)
  chosenId.value = shown[Math.min(Math.max(at + by, 0), shown.length - 1)]?.id ?? ''
}
useKeys([
  { key: 'ArrowDown', label: 'The next time', run: () => step(1) },
  { key: 'ArrowUp', label: 'The time before', run: () => step(-1) },
  { key: 't', label: 'As a table of people', run: () => void (asTable.value = !asTable.value) },
  { key: 'a', label: 'Add a time', when: () => isOpen.value, run: () => void (adding.value = true) },
])
const SEES = {
  all: 'Everybody sees who has said what.',
  tally: 'Everybody sees how many, not who.',
  nobody: 'Nobody sees the others’ answers.',
}
const standing = computed(() => {
  if (!poll.value) return ''
  const { state, closesLocal, zoneCity, over } = poll.value
  if (state === 'settled') return 'settled'
  if (state === 'closed') return 'closed without a time'
  const at = `${mediumDay(closesLocal)}, ${clock(closesLocal)} ${zoneCity} time`
  return `${over ? 'closed to answers since' : 'closes'} ${at}`
})
</script>

<template>
  <div class="desk">
    <PageComing v-if="!poll" name="This question" :error="error" />
    <template v-else>
      <header>
        <p class="eyebrow">
          <router-link to="/asking">Times asked for</router-link> · asked on {{ mediumDay(poll.askedLocal) }} ·
          {{ standing }}
        </p>
        <h1>{{ poll.title }}, {{ poll.lengthMin }} minutes</h1>
        <p class="soft">
          {{ answered }} of {{ poll.people.length }} have answered. {{ SEES[poll.shows] }}
          {{ isOpen && poll.holdsTimes ? 'All times are held for you until it is settled.' : '' }}
          <template v-if="poll.closedWord">“{{ poll.closedWord }}”</template>
        </p>
      </header>
      <div class="with-side">
        <div>
          <div class="sheet planks">
            <PollTable v-if="asTable" :poll="poll" :may-enter="isOpen" @enter="enter" />
            <ul v-else class="ruled">
              <PollPlank
                v-for="time in poll.candidates"
                :key="time.id"
                :time="time"
                :people="people"
                :chosen="time.id === chosen?.id"
                @choose="chosenId = time.id"
              />
            </ul>
          </div>
          <p class="row deeds">
            <button v-if="isOpen" type="button" class="quiet" @click="adding = true">Add a time</button>
            <button v-if="isOpen && chosen && poll.candidates.length > 1" type="button" class="quiet" @click="remove">
              Remove {{ longDay(chosen.localStart) }}, {{ clock(chosen.localStart) }}
            </button>
            <button type="button" class="quiet" :aria-pressed="asTable" @click="asTable = !asTable">
              {{ asTable ? 'As planks' : 'As a table of people' }}
            </button>
            <button v-if="isOpen" type="button" class="quiet" @click="asking = true">Who is asked</button>
            <button v-if="isOpen" type="button" class="quiet" @click="editing = true">Deadline and settings</button>
            <button v-if="isOpen" type="button" class="quiet" @click="closing = true">Close without a time</button>
            <a class="quiet" :href="`/api/time-polls/${id}/answers.csv`" download>CSV</a>
          </p>
        </div>
        <PollSide :poll="poll" :time="chosen" :doing="doing" @add="add" />
      </div>
      <PollEdit
        v-model="editing"
        :poll="poll"
        :error="doing.change.error.value"
        :busy="doing.change.busy.value"
        @save="save"
      />
      <PollWhom
        v-model="asking"
        :poll="poll"
        :people="all ?? []"
        :error="doing.setPeople.error.value"
        :busy="doing.setPeople.busy.value"
        @save="askMore"
      />
      <FormDialog
        v-model="adding"
        v-model:form="added"
        title="Add a time"
        verb="Add it"
        :error="doing.setTimes.error.value"
        :busy="doing.setTimes.busy.value"
        :disabled="!added.at"
        @submit="add(instantOf(added.at, poll.timeZone))"
      >
        <p class="soft">{{ count(answered, 'person') }} who answered already is asked for this one alone.</p>
        <MomentField
          v-model="added.at"
          :label="`Begins, ${poll.zoneCity} time`"
          :usual="clock(poll.candidates[0]?.localStart ?? wallOf(poll.closesAt, poll.timeZone))"
          :time-zone="poll.timeZone"
        />
      </FormDialog>
      <FormDialog
        v-model="closing"
        v-model:form="word"
        title="Close without a time"
        verb="Close it and tell people"
        :error="doing.close.error.value"
        :busy="doing.close.busy.value"
        @submit="close"
      >
        <p class="soft">
          All times are let go, and {{ count(poll.people.filter(one => one.reachable).length, 'person') }} hear of it.
        </p>
        <v-text-field v-model="word.word" label="A word to them (optional)" maxlength="500" />
      </FormDialog>
    </template>
  </div>
</template>

<style scoped>
.planks {
  padding: 8px 0;
}
.deeds {
  margin-top: 10px;
  gap: 4px 14px;
}
</style>
