<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import DecisionRow from '../components/DecisionRow.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useAllDecisions } from '../composables/useSearch'
import { count } from '../time'

/** The register of decisions over all series. */
const route = useRoute()
const router = useRouter()
const words = ref(String(route.query.q ?? ''))
const seriesId = ref(typeof route.query.seriesId === 'string' ? route.query.seriesId : null)
const wish = computed(() => ({ query: words.value ?? '', seriesId: seriesId.value ?? undefined }))
const { decisions, total, series, error, more, hasMore } = useAllDecisions(wish)
watch(wish, now => void router.replace({ query: { q: now.query || undefined, seriesId: now.seriesId } }))
const csv = computed(
  () => `/api/decisions.csv?${new URLSearchParams({ query: wish.value.query, seriesId: wish.value.seriesId ?? '' })}`,
)
</script>

<template>
  <div class="desk">
    <div class="row spread">
      <h1>Decisions</h1>
      <a class="small" :href="csv" download>As CSV</a>
    </div>
    <div class="filters">
      <v-text-field v-model="words" label="Find a decision" clearable />
      <v-select
        v-model="seriesId"
        :items="[{ title: 'all series', value: null }, ...series.map(one => ({ title: one.name, value: one.id }))]"
        label="Series"
      />
    </div>
    <ProblemNote :error="error" />
    <section v-if="decisions" class="sheet" aria-live="polite">
      <p class="eyebrow">{{ count(total, 'decision') }}</p>
      <ol class="ruled">
        <DecisionRow v-for="one in decisions" :key="one.lineId" :decision="one" show-series />
      </ol>
      <p v-if="decisions.length === 0" class="soft">
        {{ wish.query || wish.seriesId ? 'No decision fits.' : 'Nothing has been decided yet.' }}
      </p>
      <button v-if="hasMore" class="quiet" @click="more()">Show more</button>
    </section>
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: minmax(180px, 1fr) minmax(150px, 260px);
  gap: 12px;
  margin: 12px 0 14px;
}
ol {
  padding: 0;
  list-style: none;
}
</style>
