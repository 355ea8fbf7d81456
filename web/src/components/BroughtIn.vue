<script setup lang="ts">
import { nextTick, ref } from 'vue'
import type { Sheet } from '../api/client'
import MarkdownText from './MarkdownText.vue'

/** Topics that members have brought: keeper and chair take them, put them off, or do not, with a word back. */
defineProps<{ topics: Sheet['broughtIn']; mayAnswer: boolean; me: string }>()
const emit = defineEmits<{
  answer: [id: string, answer: 'take' | 'put_off' | 'decline', word: string | null]
  withdraw: [topic: Sheet['broughtIn'][number]]
}>()
const refusing = ref<string | null>(null)
const word = ref('')
const box = ref<HTMLInputElement[]>()

async function ask(id: string) {
  refusing.value = id
  word.value = ''
  await nextTick()
  box.value?.[0]?.focus()
}
function decline() {
  if (!word.value.trim()) return
  emit('answer', refusing.value!, 'decline', word.value.trim())
  refusing.value = null
}
const about = (topic: Sheet['broughtIn'][number]) => `${topic.broughtBy.name} · ${topic.lengthMin} min`
</script>

<template>
  <section v-if="topics.length" class="brought-in" aria-labelledby="brought-in">
    <h2 id="brought-in" class="eyebrow">Brought in · {{ topics.length }}</h2>
    <ul class="ruled">
      <li v-for="topic in topics" :key="topic.id">
        <p class="strong">{{ topic.title }}</p>
        <MarkdownText v-if="topic.text" :text="topic.text" class="small" />
        <p class="small row">
          <span class="soft">{{ about(topic) }}</span>
          <template v-if="mayAnswer">
            <button
              type="button"
              class="quiet"
              :aria-label="`Take it: ${topic.title}`"
              @click="emit('answer', topic.id, 'take', null)"
            >
              Take it
            </button>
            <button
              type="button"
              class="quiet"
              :aria-label="`To the next meeting: ${topic.title}`"
              @click="emit('answer', topic.id, 'put_off', null)"
            >
              To the next meeting
            </button>
            <button type="button" class="quiet" :aria-label="`Not here: ${topic.title}`" @click="ask(topic.id)">
              Not here
            </button>
          </template>
          <template v-else>
            <span class="soft">waits for the keeper</span>
            <button
              v-if="topic.broughtBy.id === me"
              type="button"
              class="quiet"
              :aria-label="`Withdraw: ${topic.title}`"
              @click="emit('withdraw', topic)"
            >
              Withdraw
            </button>
          </template>
        </p>
        <form
          v-if="refusing === topic.id"
          class="row"
          novalidate
          @submit.prevent="decline"
          @keydown.esc="refusing = null"
        >
          <input ref="box" v-model="word" aria-label="Why, to who brought it" placeholder="Why, to who brought it" />
          <button class="quiet" :disabled="!word.trim()">Send it back</button>
        </form>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.brought-in {
  margin-top: 16px;
  padding: 10px 14px;
  border-left: 4px solid var(--gold);
  background: var(--gold-pale);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
input {
  flex: 1 1 180px;
  padding: 5px 8px;
  border: 1px solid var(--line);
  border-radius: 3px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
}
</style>
