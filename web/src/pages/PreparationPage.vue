<script setup lang="ts">
import { computed, ref } from 'vue'
import { ProblemError } from '../api/client'
import HouseName from '../components/HouseName.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { usePreparationLink } from '../composables/usePreparation'
import { clock, longDay } from '../time'

/** For whoever looks after a place, without signing in: what is to be ready, and when. */
const { id, token } = defineProps<{ id: string; token: string }>()
const { asked, error, answer, answerError, isAnswering } = usePreparationLink(() => ({ id, token }))
const word = ref('')
const SAID = { asked: '', confirmed: 'You have confirmed this.', refused: 'You have said no.', off: '' }
const isGone = computed(() => error.value instanceof ProblemError && error.value.status === 404)
async function say(state: 'confirmed' | 'refused') {
  try {
    await answer({ state, word: word.value || null })
    word.value = ''
  } catch {
    /* shown below */
  }
}
</script>

<template>
  <div class="desk">
    <HouseName />
    <section v-if="isGone" class="sheet stack page" role="alert">
      <h1>This link leads nowhere any more</h1>
      <p>Somebody else looks after the place by now, or the meeting is long over. Ask whoever sent it to you.</p>
    </section>
    <ProblemNote v-else :error="error" />
    <div v-if="asked" class="sheet stack page">
      <p class="eyebrow">To be ready in {{ asked.place }}</p>
      <h1>{{ asked.title }}</h1>
      <p v-if="asked.state === 'off'" class="strong">This is not wanted any more.</p>
      <template v-else>
        <p>
          {{ longDay(asked.localStart) }}, begins at {{ clock(asked.localStart) }} {{ asked.zoneCity }} time. The place
          is wanted from <b>{{ clock(asked.from) }}</b> to <b>{{ clock(asked.to) }}</b>, with what must be done before
          and after.
        </p>
        <ul>
          <li v-for="item in asked.items" :key="item">{{ item }}</li>
        </ul>
        <p
          v-if="SAID[asked.state]"
          class="strong"
          :class="asked.state === 'confirmed' ? 'fresh' : 'alarm'"
          role="status"
        >
          {{ SAID[asked.state] }}<template v-if="asked.word"> “{{ asked.word }}”</template>
        </p>
        <v-text-field v-model="word" :label="`A word to ${asked.keeper}`" />
        <ProblemNote :error="answerError" />
        <p class="row">
          <v-btn :loading="isAnswering" @click="say('confirmed')">{{
            asked.state === 'refused' ? 'It will be ready after all' : 'It will be ready'
          }}</v-btn>
          <v-btn variant="outlined" :disabled="isAnswering" @click="say('refused')">I have to say no</v-btn>
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.page {
  max-width: 620px;
}
</style>
