<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { count, instantOf } from '../time'
import NotYou from '../components/NotYou.vue'
import TimeChoice from './TimeChoice.vue'
import { usePollPage, type Answer } from './usePollPage'
import { useZone } from './useZone'
import ZoneSwitch from './ZoneSwitch.vue'
import { useTitle } from '../composables/useTitle'

/** Which times suit: for those who are asked, without an account, with one hand. Opening it changes nothing. */
const { id, personId = undefined, token } = defineProps<{ id: string; personId?: string; token: string }>()
const { page, form, error, isSending, sent, open, address, read, send } = usePollPage({ id, personId, token })
useTitle(() => page.value && `Times for ${page.value.title}`, true)
const near = computed(() => (page.value ? [page.value.timeZone, page.value.pollZone] : []))
const { zone, first, all, place, wall, day, time, moment } = useZone(near)

const days = computed(() => {
  const byDay = new Map<string, NonNullable<typeof page.value>['candidates']>()
  for (const one of page.value?.candidates ?? []) {
    const on = wall(one.startsAt).slice(0, 10)
    byDay.set(on, [...(byDay.get(on) ?? []), one])
  }
  return [...byDay.values()]
})
const answered = computed(() => Object.values(form.value.answers).filter(one => one !== 'none').length)
const next = computed(() => {
  if (!page.value) return ''
  const { keeper, closesAt, byItself, outcome } = page.value
  const until = `${moment(closesAt)} ${place.value} time`
  const made = outcome === 'series' ? 'the series' : 'the meeting'
  return byItself
    ? `The first time that suits you is taken at once, and you get the invitation. Please answer until ${until}.`
    : `Please answer until ${until}; you can change it until then. ${keeper} then settles ${made}, and you get the ` +
        'invitation, or a word.'
})

/** By the link for everybody, with an address: there is nothing more to do here. */
const toProve = computed(() => sent.value && !personId && !!page.value?.proof)
function another() {
  form.value.name = ''
  sent.value = false
}
const verb = computed(() => {
  if (personId && page.value?.proof) return 'Confirm my answer'
  return page.value?.answered ? 'Send the change' : 'Send my answer'
})
const choices = useTemplateRef<InstanceType<typeof TimeChoice>[]>('choices')
const order = computed(() => days.value.flat().map(one => one.id))
const button = useTemplateRef<HTMLButtonElement>('button')
/** On to the next time; after the last, to the button. */
async function goOn(from: string) {
  await nextTick()
  const to = order.value.indexOf(from) + 1
  const found = choices.value?.find(one => one.$props.time.id === order.value[to])
  if (found) found.focus()
  else button.value?.focus()
}
function noneOfThese() {
  form.value.noneSuits = !form.value.noneSuits
  if (!form.value.noneSuits) return
  for (const one of page.value!.candidates) if (!one.past) form.value.answers[one.id] = 'cannot' as Answer
}
const suggested = ref('')
function suggest() {
  if (!suggested.value || form.value.suggestions.length >= 5) return
  const at = instantOf(suggested.value, zone.value)
  if (!form.value.suggestions.includes(at)) form.value.suggestions.push(at)
  suggested.value = ''
}
const status = useTemplateRef<HTMLElement>('status')
async function submit() {
  suggest()
  await send()
  await nextTick()
  status.value?.scrollIntoView({ block: 'nearest' })
}
const suggestionFault = computed(() => {
  const found = error.value?.problem.errors?.find(fault => fault.pointer.startsWith('/suggestions'))
  return found?.detail
})
</script>

<template>
  <section v-if="error?.status === 404" class="sheet stack" role="alert">
    <h1>This link is no longer valid</h1>
    <p>Perhaps it was long ago, you have a newer link, or part of this one was lost. Ask whoever sent it to you.</p>
  </section>
  <section v-else-if="error && !page" class="sheet stack" role="alert">
    <h1>No connection just now</h1>
    <p>The times could not be read. Your link is fine.</p>
    <button type="button" class="button" @click="read()">Try again</button>
  </section>
  <p v-else-if="!page" class="soft" role="status">The times are being read …</p>
  <section v-else-if="toProve" ref="status" class="sheet stack">
    <p class="eyebrow">{{ page.keeper }} asks</p>
    <h1>{{ page.title }}</h1>
    <p class="done" role="status">
      One more step: a mail is on its way to {{ address }}. Open the link in it and confirm there; your answer counts
      then.
    </p>
    <p class="row">
      <button type="button" class="button plain" @click="another">Answer for somebody else</button>
    </p>
  </section>
  <form v-else class="sheet stack" novalidate @submit.prevent="submit">
    <header class="about">
      <p class="eyebrow">{{ page.keeper }} asks{{ page.name ? `, ${page.name}` : '' }}</p>
      <h1>{{ page.title }}</h1>
      <p class="soft">
        {{
          [count(page.lengthMin, 'minute'), page.location, page.online ? 'with a call' : null]
            .filter(Boolean)
            .join(' · ')
        }}
      </p>
      <p v-if="page.words" class="words">{{ page.words }}</p>
    </header>
    <p v-if="page.state === 'settled' && page.settledAt" class="done">
      It is settled: <b>{{ moment(page.settledAt) }}</b> {{ place }} time. The invitation comes by mail.
    </p>
    <p v-else-if="page.state === 'closed'" class="done">
      {{ page.keeper }} has closed this without choosing a time.<template v-if="page.closedWord">
        “{{ page.closedWord }}”</template
      >
    </p>
    <p v-else-if="page.state === 'over'" class="done">The time to answer is over. {{ page.keeper }} settles it now.</p>
    <p v-else-if="personId && page.proof" class="done">
      You have answered by the link for everybody. Look at it, and confirm it below: then it counts.
    </p>
    <p v-else class="small">{{ next }}</p>
    <ZoneSwitch v-model="zone" :first="first" :all="all" />
    <NotYou v-if="page.name" :name="page.name" :from="page.keeper" />

    <div v-if="!personId && open" class="who stack">
      <label v-if="page.expected.length" class="field"
        ><span>Who are you?</span
        ><select v-model="form.personId">
          <option value="">Somebody else</option>
          <option v-for="one in page.expected" :key="one.id" :value="one.id">
            {{ one.name }}{{ one.answered ? ', has answered' : '' }}
          </option>
        </select></label
      >
      <template v-if="!form.personId">
        <label class="field"
          ><span>Your name</span
          ><input v-model="form.name" autocomplete="name" maxlength="120" :aria-invalid="!!error?.at('/name')" /><em
            v-if="error?.at('/name')"
            role="alert"
            >{{ error.at('/name') }}</em
          ></label
        >
      </template>
      <label class="field"
        ><span>Your mail address, for the invitation (optional)</span
        ><input
          v-model="form.email"
          type="email"
          autocomplete="email"
          maxlength="254"
          :aria-invalid="!!error?.at('/email')"
        /><em v-if="error?.at('/email')" role="alert">{{ error.at('/email') }}</em></label
      >
    </div>

    <section v-for="times in days" :key="times[0]!.id">
      <h2>{{ day(times[0]!.startsAt) }}</h2>
      <TimeChoice
        v-for="one in times"
        :key="one.id"
        ref="choices"
        v-model="form.answers[one.id]!"
        :time="one"
        :label="day(one.startsAt)"
        :from="time(one.startsAt)"
        :to="time(one.endsAt)"
        :disabled="!open"
        @next="goOn(one.id)"
        @update:model-value="form.noneSuits = form.noneSuits && form.answers[one.id] === 'cannot'"
      />
    </section>

    <template v-if="open">
      <section class="stack">
        <button type="button" class="quiet" :aria-pressed="form.noneSuits" @click="noneOfThese">None of these</button>
        <div class="suggest">
          <label class="field"
            ><span>Another time that would suit you, {{ place }} time (optional)</span
            ><input v-model="suggested" type="datetime-local" :aria-invalid="!!suggestionFault" /><em
              v-if="suggestionFault"
              role="alert"
              >{{ suggestionFault }}</em
            ></label
          >
          <button type="button" class="button plain" :disabled="!suggested" @click="suggest">Suggest it</button>
        </div>
        <ul v-if="form.suggestions.length" class="ruled" aria-label="Times you suggest">
          <li v-for="at in form.suggestions" :key="at" class="row">
            <span>{{ moment(at) }}</span>
            <button
              type="button"
              class="quiet small"
              :aria-label="`Remove ${moment(at)}`"
              @click="form.suggestions = form.suggestions.filter(one => one !== at)"
            >
              Remove
            </button>
          </li>
        </ul>
      </section>
      <label class="field"
        ><span>A comment (optional)</span><textarea v-model="form.comment" rows="2" maxlength="500" />
      </label>
      <label v-if="page.outcome !== 'series'" class="tick"
        ><input v-model="form.accepts" type="checkbox" /><span
          >This is my yes: where I say “suits”, take it as my acceptance of the invitation.</span
        ></label
      >
      <div ref="status" class="foot">
        <p v-if="sent" class="done" role="status">
          Sent. You can come back and change it until {{ moment(page.closesAt) }}.<template v-if="page.path">
            <a :href="page.path">Your own link to it</a></template
          >
        </p>
        <p
          v-else-if="error && !error.at('/name') && !error.at('/email') && !suggestionFault"
          class="alarm"
          role="alert"
        >
          {{ error.message }}
        </p>
        <div class="row">
          <button ref="button" type="submit" class="button" :disabled="isSending">
            {{ isSending ? 'Sending …' : verb }}
          </button>
          <span class="small soft">{{ answered }} of {{ page.candidates.length }} answered</span>
        </div>
        <p class="small soft keys">Keys on a time: s suits, p possible, c cannot.</p>
      </div>
    </template>
  </form>
</template>

<style scoped>
.suggest {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
}
.suggest .field {
  flex: 1 1 260px;
}
.foot {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 8px;
  background: var(--sheet);
  border-top: 1px solid var(--line);
  padding: 12px 0 4px;
}
@media (hover: none) {
  .keys {
    display: none;
  }
}
</style>
