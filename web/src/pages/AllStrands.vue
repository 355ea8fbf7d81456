<script setup lang="ts">
import { ref } from 'vue'
import ProblemNote from '../components/ProblemNote.vue'
import StrandChoice from '../components/StrandChoice.vue'
import Strands from '../components/Strands.vue'
import { FIRST_WISH, useAllStrands } from '../composables/useStrands'

/** What carries over in all series somebody runs, one picture beneath the other. */
const wish = ref({ ...FIRST_WISH, closed: 'none' as 'latest' | 'all' | 'none' })
const { series, owners, error } = useAllStrands(wish)
</script>

<template>
  <div class="desk">
    <h1>What carries over</h1>
    <StrandChoice v-model="wish" :owners="owners" />
    <ProblemNote :error="error" />
    <section
      v-for="one in series"
      :key="`${one.id} ${one.strands.columns.length}`"
      class="sheet"
      :aria-label="one.title"
    >
      <h2>
        <router-link :to="`/series/${one.id}`">{{ one.title }}</router-link>
      </h2>
      <Strands :strands="one.strands" :of="one.title" />
    </section>
    <p v-if="series?.length === 0" class="soft">Nothing carries over in the series you run.</p>
  </div>
</template>

<style scoped>
section {
  margin-top: 12px;
}
</style>
