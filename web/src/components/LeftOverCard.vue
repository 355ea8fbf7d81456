<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '../api/client'
import { carriedWords, list } from '../time'

/** One left-over action to be reviewed: done, carried over, split into several, or dropped with a reason. */
const { action, canReview } = defineProps<{ action: Schemas['LeftOver']; canReview: boolean; canTick: boolean }>()
const emit = defineEmits<{ review: [Schemas['Review']]; split: [texts: string[]]; undo: []; tick: [] }>()

const dropping = ref(false)
const reason = ref('')
const box = ref<HTMLInputElement>()
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
        : 'dropped',
)
const tone = computed(() => (action.stuck ? 'is-stuck' : action.carried > 0 ? 'is-carried' : 'is-new'))

async function askWhy() {
  dropping.value = true
  await nextTick()
  box.value?.focus()
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
}

function drop() {
  if (!reason.value.trim()) return
  emit('review', { verdict: 'drop', word: reason.value })
  dropping.value = false
}
</script>

<template>
  <li class="card" :class="[tone, { over: verdict === 'done' || verdict === 'dropped' }]">
    <p class="text">{{ action.text }}</p>
    <div class="foot small">
      <span class="soft"
        >{{ list(action.owners.map(owner => owner.name.split(' ')[0]!)) || 'nobody yet' }} ·
        {{ carriedWords(action.carried) }}<template v-if="action.stuck">, stuck</template></span
      >
      <span v-if="verdict"
        ><b :class="verdict === 'carried over' ? 'carried' : 'fresh'">{{ verdict }}</b> {{ ' '
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
        <button
          type="button"
          class="quiet"
          :aria-label="`Carry over: ${action.text}`"
          @click="emit('review', { verdict: 'keep' })"
        >
          Carry over
        </button>
        <button type="button" class="quiet" :aria-label="`Split: ${action.text}`" @click="askParts">Split</button>
        <button type="button" class="quiet" :aria-label="`Drop: ${action.text}`" @click="askWhy">Drop</button>
      </span>
    </div>
    <form
      v-if="splitting"
      class="why"
      novalidate
      @submit.prevent="split"
      @keydown.esc="splitting = false"
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
    <form v-if="dropping" class="why" novalidate @submit.prevent="drop" @keydown.esc="dropping = false">
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
  gap: 8px;
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
