<script setup lang="ts">
import { computed } from 'vue'
import type { Series } from '../api/client'
import { columnDay, count, list, wallNow } from '../time'
import { useCalled } from '../composables/useCalled'
import CallWords from './CallWords.vue'
import SeriesMark from './SeriesMark.vue'

/** What a series is, in words. */
const { series } = defineProps<{ series: Series }>()
const { call } = useCalled()
const people = computed(() => {
  const informed = series.members.filter(member => member.role === 'informed').length
  const coming = count(series.members.length - informed, 'person')
  return informed ? `${coming}, ${informed} for information` : coming
})
</script>

<template>
  <div>
    <p class="eyebrow">
      {{ !series.howOften ? 'On' : series.since > wallNow(series.timeZone).slice(0, 10) ? 'From' : 'Since' }}
      {{ columnDay(series.since) }} {{ series.since.slice(0, 4) }}
    </p>
    <h1><SeriesMark :mark="series.mark" />{{ series.title }}</h1>
    <p class="soft about">
      {{ series.sentence }}<template v-if="series.location"> · {{ series.location }}</template
      ><template v-if="series.alsoHeld.length"> with {{ list(series.alsoHeld.map(place => place.name)) }}</template
      ><template v-if="series.call"> · <CallWords :call="series.call" /></template> · {{ people }} · kept by
      <span class="strong ink">{{ series.keeper.name }}</span>
    </p>
    <p v-if="series.outside" class="soft about">
      {{ series.outside }} invites to it, elsewhere. Its dates go where that invitation goes.
    </p>
    <p v-if="series.purpose" class="soft about">{{ series.purpose }}</p>
    <p v-if="series.called.length" class="soft about small">
      In its minutes
      <span v-for="(one, i) in series.called" :key="one.word"
        >{{ i ? '; ' : '' }}the {{ one.word }} is {{ one.person.name }}
        <button
          v-if="series.may.change"
          type="button"
          class="quiet small"
          :aria-label="`Remove: the ${one.word} is ${one.person.name}`"
          @click="call({ seriesId: series.id, word: one.word, personId: null })"
        >
          Remove
        </button></span
      >
    </p>
  </div>
</template>

<style scoped>
.about {
  margin-top: 6px;
  max-width: 80ch;
}
.ink {
  color: var(--ink);
}
</style>
