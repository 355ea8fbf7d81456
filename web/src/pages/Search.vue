<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import ProblemNote from '../components/ProblemNote.vue'
import { useSearch } from '../composables/useSearch'
import type { Schemas } from '../api/client'
import { shortDay } from '../time'

/** What has certain words in it, wherever it stands; what is asked for stands in the address. */
type Hit = Schemas['SearchHits']['hits'][number]
const KINDS = {
  series: 'series',
  topic: 'topic',
  note: 'note',
  decision: 'decision',
  action: 'action',
  progress: 'word on an action',
  paper: 'file',
} as const
const route = useRoute()
const router = useRouter()
const words = ref(String(route.query.q ?? ''))
const asked = ref(words.value)
const asKind = (name: unknown) => Object.keys(KINDS).find(one => one === name) as keyof typeof KINDS | undefined
const kind = ref(asKind(route.query.kind) ?? null)
const seriesId = ref(typeof route.query.seriesId === 'string' ? route.query.seriesId : null)
const box = useTemplateRef<{ focus: () => void }>('box')
onMounted(() => words.value || box.value?.focus())

let timer: ReturnType<typeof setTimeout> | undefined
watch(words, now => {
  clearTimeout(timer)
  timer = setTimeout(() => (asked.value = now ?? ''), 250)
})
const wish = computed(() => ({
  query: asked.value,
  kind: kind.value ?? undefined,
  seriesId: seriesId.value ?? undefined,
}))
watch(wish, ({ query, ...rest }) => void router.replace({ query: { q: query || undefined, ...rest } }))
const { hits, series, people, error, isSearching, more, hasMore } = useSearch(wish)

/** A text in pieces, those that were looked for marked. The server counts signs, which may be two of ours. */
function pieces({ text: whole, marks }: Hit) {
  const text = { slice: (from: number, to?: number) => [...whole].slice(from, to).join('') }
  const found: { text: string; marked: boolean }[] = []
  let at = 0
  for (const [start = 0, length = 0] of marks) {
    found.push(
      { text: text.slice(at, start), marked: false },
      { text: text.slice(start, start + length), marked: true },
    )
    at = start + length
  }
  return [...found, { text: text.slice(at), marked: false }].filter(piece => piece.text)
}
/** What was not carried is no decision, and one taken by too few says so. */
function kindOf(hit: Hit) {
  const word = hit.outcome === 'lost' || hit.outcome === 'tied' ? 'motion, not carried' : KINDS[hit.kind]
  return hit.belowQuorum ? `${word}, below quorum` : word
}
const where = (hit: Hit) =>
  hit.meetingId ? `/meetings/${hit.meetingId}${hit.lineId ? `#line-${hit.lineId}` : ''}` : `/series/${hit.series.id}`
</script>

<template>
  <div class="desk">
    <h1>Search</h1>
    <div class="filters" role="search">
      <v-text-field ref="box" v-model="words" label="Words" clearable :loading="isSearching && !!asked" />
      <v-select
        v-model="kind"
        :items="[
          { title: 'anything', value: null },
          ...Object.entries(KINDS).map(([value, title]) => ({ title, value })),
          { title: 'person', value: 'person' },
        ]"
        label="What"
      />
      <v-select
        v-model="seriesId"
        :items="[{ title: 'all series', value: null }, ...series.map(one => ({ title: one.name, value: one.id }))]"
        label="Series"
      />
    </div>
    <ProblemNote :error="error" />
    <section v-if="asked && hits" class="sheet" aria-live="polite">
      <p v-if="people.length" class="people">
        <span v-for="one in people" :key="one.id">
          <router-link :to="`/people/${one.id}`">{{ one.name }}</router-link> <span class="small soft">person</span>
        </span>
      </p>
      <ul class="ruled">
        <li v-for="hit in hits" :key="hit.id">
          <router-link class="hit" :to="where(hit)"
            ><template v-for="(piece, i) in pieces(hit)" :key="i"
              ><mark v-if="piece.marked">{{ piece.text }}</mark
              ><template v-else>{{ piece.text }}</template></template
            ></router-link
          >
          <p class="small soft">
            {{ kindOf(hit) }}<template v-if="hit.kind !== 'series'"> · {{ hit.series.name }}</template> ·
            {{ shortDay(hit.on) }}
          </p>
        </li>
      </ul>
      <p v-if="hits.length === 0 && people.length === 0" class="soft">
        Nothing has these words. A word’s beginning is enough.
      </p>
      <button v-if="hasMore" class="quiet" @click="more()">Show more</button>
    </section>
    <p v-else class="soft">
      Titles, topics, notes, decisions, actions, what was said of them, and names of files, in all your series; and
      people.
    </p>
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 12px;
  margin: 12px 0 14px;
}
.filters > :first-child {
  grid-column: span 2;
}
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.hit {
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
  white-space: pre-line;
}
.hit:hover {
  text-decoration: underline;
}
mark {
  background: var(--gold-pale);
  color: inherit;
  font-weight: 650;
}
@media (max-width: 600px) {
  .filters {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
