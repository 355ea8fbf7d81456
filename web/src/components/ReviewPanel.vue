<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { useFold } from '../composables/useFold'
import LeftOverCard from './LeftOverCard.vue'

/** The word of this meeting on each action that is left over. */
const { sheet } = defineProps<{ sheet: Sheet }>()
defineEmits<{
  tick: [action: Sheet['leftOver'][number]]
  review: [actionId: string, body: Schemas['Review']]
  split: [actionId: string, texts: string[]]
  undo: [actionId: string]
  edit: [action: Sheet['leftOver'][number]]
  handOver: [action: Sheet['leftOver'][number], seriesId: string, title: string]
}>()

const { folded, rest, unfold } = useFold(() => sheet.leftOver.length)
const frozen = computed(() => ['issued', 'called_off'].includes(sheet.state))
const canReview = computed(() => sheet.may.hold && ['in_session', 'closed'].includes(sheet.state))
const stuck = computed(() => sheet.leftOver.filter(action => action.stuck && !action.review).length)
const open = computed(() => sheet.leftOver.filter(action => action.state === 'open').length)
</script>

<template>
  <section class="review" data-left aria-labelledby="left">
    <h2 id="left" class="eyebrow" tabindex="-1">Still left over · {{ open }}</h2>
    <p v-if="stuck" class="small alarm">
      {{ stuck === 1 ? 'One is' : `${stuck} are` }} stuck: do it, split it, hand it over or drop it.
    </p>
    <ul>
      <LeftOverCard
        v-for="(action, i) in sheet.leftOver"
        :key="action.id"
        :class="{ folded: folded(i) }"
        :action="action"
        :people="sheet.people"
        :can-review="canReview"
        :can-tick="action.mayChange && !frozen"
        @tick="$emit('tick', action)"
        @review="body => $emit('review', action.id, body)"
        @split="texts => $emit('split', action.id, texts)"
        @undo="$emit('undo', action.id)"
        @edit="$emit('edit', action)"
        @hand-over="(seriesId, title) => $emit('handOver', action, seriesId, title)"
      />
    </ul>
    <button v-if="rest" type="button" class="quiet small" @click="unfold">{{ rest }} more to speak about</button>
  </section>
</template>

<style scoped>
.review {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
</style>
