<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import { shortName } from '../names'
import { carriedWords, list, shortDay } from '../time'
import HandOver from './HandOver.vue'

/**
 * One left-over action to be reviewed: done, carried over (with a word), split into several, handed over to another
 * series, or dropped with a reason. With the focus on the card, a key does each.
 */
const { action, canReview, people } = defineProps<{
  action: Schemas['LeftOver']
  people: Schemas['Named'][]
  canReview: boolean
  canTick: boolean
}>()
const emit = defineEmits<{
  review: [Schemas['Review']]
  split: [texts: string[]]
  undo: []
  tick: []
  edit: []
  handOver: [seriesId: string, title: string]
}>()

const dropping = ref(false)
const reason = ref('')
const box = ref<HTMLInputElement>()
const wording = ref(false)
const word = ref('')
const wordBox = ref<HTMLInputElement>()
const handing = ref(false)
const splitting = ref(false)
const parts = ref('')
const partsBox = ref<HTMLTextAreaElement>()
const texts = computed(() =>
  parts.value
    .split('\n')
    .map(text => text.trim())
    .filter(Boolean),
)
const VERDICTS = { done: 'done', keep: 'carried over', drop: 'dropped' }
const verdict = computed(() =>
  action.review
    ? VERDICTS[action.review.verdict]
    : action.state === 'open'
      ? null
      : action.state === 'done'
        ? 'done'
        : action.state === 'handed_over'
          ? 'handed over'
          : 'dropped',
)
const tone = computed(() => (action.stuck ? 'is-stuck' : action.carried > 0 ? 'is-carried' : 'is-new'))

async function askWhy() {
  dropping.value = true
  await nextTick()
  box.value?.focus()
}

async function askWord() {
  word.value = action.review?.word ?? ''
  wording.value = true
  await nextTick()
  wordBox.value?.focus()
}

function keepWord() {
  emit('review', { verdict: 'keep', word: word.value.trim() || null })
  leaveWord()
}
function leaveWord() {
  wording.value = false
  goOn()
}

function carry() {
  emit('review', { verdict: 'keep' })
  askWord()
}

/** Whoever reviews by keys comes to the next one that nobody has said anything about. */
const card = useTemplateRef<HTMLElement>('card')
async function goOn() {
  await nextTick()
  const all = [...document.querySelectorAll<HTMLElement>('[data-left] .card[tabindex]')].filter(one => one.offsetParent)
  const following = all.slice(all.indexOf(card.value!) + 1).find(one => !('said' in one.dataset))
  ;(following ?? card.value)?.focus()
}

const KEYS: Record<string, () => void> = {
  d: () => {
    emit('review', { verdict: 'done' })
    goOn()
  },
  c: carry,
  s: askParts,
  x: askWhy,
  h: () => (handing.value = true),
  e: () => emit('edit'),
}
function press(event: KeyboardEvent) {
  if (!canReview || event.ctrlKey || event.metaKey || event.altKey) return
  const deed = KEYS[event.key]
  if (!deed || (verdict.value && event.key !== 'e')) return
  event.preventDefault()
  deed()
}

/** What was begun is left, and the hand is on the card again. */
function back(leave: () => void) {
  leave()
  card.value?.focus()
}

async function askParts() {
  splitting.value = true
  await nextTick()
  partsBox.value?.focus()
}

function split() {
  if (texts.value.length < 2) return
  emit('split', texts.value)
  splitting.value = false
  goOn()
}

function drop() {
  if (!reason.value.trim()) return
  emit('review', { verdict: 'drop', word: reason.value })
  dropping.value = false
  goOn()
}
</script>

<template>
  <li
    ref="card"
    class="card"
    :data-said="verdict ?? undefined"
    :class="[tone, { over: verdict !== null && verdict !== 'carried over' }]"
    :tabindex="canReview ? 0 : undefined"
    :aria-label="canReview ? `${action.text}: d done, c carry over, s split, h hand over, e edit, x drop` : undefined"
    @keydown.self="press"
  >
    <p class="text">{{ action.text }}</p>
    <p v-if="action.note" class="small said">
      “{{ [action.note.delayed ? 'will not be done by then' : '', action.note.text].filter(Boolean).join(': ') }}”
      <span class="soft">{{ action.note.by }}, {{ shortDay(action.note.on) }}</span>
    </p>
    <div class="foot small">
      <span class="soft"
        >{{ list(action.owners.map(owner => shortName(owner.name, people))) || 'nobody yet' }} ·
        <template v-if="action.dueOn">due {{ shortDay(action.dueOn) }} · </template>{{ carriedWords(action.carried)
        }}<template v-if="action.stuck">, stuck</template></span
      >
      <span v-if="verdict"
        ><b :class="verdict === 'carried over' ? 'carried' : 'fresh'">{{ verdict }}</b
        ><template v-if="action.review?.word">: {{ action.review.word }}</template> {{ ' '
        }}<button
          v-if="canReview && verdict === 'carried over' && !wording"
          type="button"
          class="quiet"
          :aria-label="`A word on: ${action.text}`"
          @click="askWord"
        >
          {{ action.review?.word ? 'Edit the word' : 'Add a word' }}</button
        >{{ ' '
        }}<button
          v-if="canReview && action.review"
          type="button"
          class="quiet"
          :aria-label="`Undo: ${action.text}`"
          @click="emit('undo')"
        >
          Undo
        </button></span
      >
      <button
        v-else-if="canTick && !canReview"
        type="button"
        class="quiet"
        :aria-label="`Done: ${action.text}`"
        @click="emit('tick')"
      >
        Done
      </button>
      <span v-else-if="canReview" class="deeds">
        <button
          type="button"
          class="quiet"
          :aria-label="`Done: ${action.text}`"
          @click="emit('review', { verdict: 'done' })"
        >
          Done
        </button>
        <button type="button" class="quiet" :aria-label="`Carry over: ${action.text}`" @click="carry">
          Carry over
        </button>
        <button type="button" class="quiet" :aria-label="`Split: ${action.text}`" @click="askParts">Split</button>
        <button type="button" class="quiet" :aria-label="`Hand over: ${action.text}`" @click="handing = true">
          Hand over
        </button>
        <button type="button" class="quiet" :aria-label="`Edit: ${action.text}`" @click="emit('edit')">Edit</button>
        <button type="button" class="quiet" :aria-label="`Drop: ${action.text}`" @click="askWhy">Drop</button>
      </span>
    </div>
    <form
      v-if="splitting"
      class="why"
      novalidate
      @submit.prevent="split"
      @keydown.esc="back(() => (splitting = false))"
      @keydown.ctrl.enter.prevent="split"
    >
      <textarea
        ref="partsBox"
        v-model="parts"
        rows="3"
        aria-label="Parts, each on a row of its own"
        placeholder="Each part on a row of its own, such as “Ines to ask the yard by Friday”"
      /><button class="quiet" :disabled="texts.length < 2">Split it</button>
    </form>
    <form v-if="wording" class="why" novalidate @submit.prevent="keepWord" @keydown.esc="leaveWord">
      <input ref="wordBox" v-model="word" maxlength="500" aria-label="A word on it" placeholder="A word on it" /><button
        class="quiet"
      >
        Save
      </button>
    </form>
    <HandOver
      v-if="handing"
      :except="[action.seriesId]"
      @to="
        (id, title) => {
          handing = false
          emit('handOver', id, title)
          goOn()
        }
      "
      @cancel="back(() => (handing = false))"
    />
    <form v-if="dropping" class="why" novalidate @submit.prevent="drop" @keydown.esc="back(() => (dropping = false))">
      <input ref="box" v-model="reason" aria-label="Why it is dropped" placeholder="Why it is dropped" /><button
        class="quiet"
        :disabled="!reason.trim()"
      >
        Drop it
      </button>
    </form>
  </li>
</template>

<style scoped>
.card {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-left-width: 4px;
  border-radius: 3px;
  padding: 7px 12px 7px 14px;
  margin-top: 8px;
  box-shadow: 0 4px 10px -8px rgb(23 35 31 / 25%);
}
.is-stuck {
  border-left-color: var(--alarm);
  border-left-width: 6px;
}
.is-carried {
  border-left-color: var(--carried);
}
.is-new {
  border-left-color: var(--fresh);
  border-left-width: 2px;
}
.text {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.said {
  overflow-wrap: anywhere;
}
.over .text {
  text-decoration: line-through;
  font-weight: 400;
  color: var(--soft);
}
.foot {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
  flex-wrap: wrap;
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
}
.deeds button {
  white-space: nowrap;
}
.why {
  display: flex;
  gap: 6px;
  margin-top: 6px;
}
.why textarea,
.why input {
  flex: 1;
  min-width: 0;
  border: 1px solid var(--soft);
  border-radius: 6px;
  padding: 3px 8px;
  font: inherit;
  background: var(--sheet);
  color: var(--ink);
}
</style>
