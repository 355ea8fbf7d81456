<script setup lang="ts">
import SeriesMark from '../components/SeriesMark.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useKeys } from '../composables/useKeys'
import { useSession } from '../composables/useSession'
import { useSeriesList } from '../composables/useSeries'
import { router } from '../router'
import { clock, count, mediumDay, ownTime } from '../time'

const { person } = useSession()
const { series, error, more, hasMore } = useSeriesList()
const whenWords = (start: string, local: string) =>
  `${mediumDay(local)}, ${clock(local)}${ownTime(start, local, person.value?.timeZone)}`
useKeys([
  {
    key: 'n',
    label: 'New series',
    run: () => {
      router.push('/series/new')
    },
  },
])
</script>

<template>
  <div class="desk">
    <div class="row spread list-head">
      <h1>Series</h1>
      <v-btn to="/series/new">New series</v-btn>
    </div>
    <ProblemNote :error="error" />
    <div v-if="series" class="sheet">
      <ul v-if="series.length" class="ruled">
        <li v-for="one in series" :key="one.id" class="line">
          <div>
            <router-link class="strong name" :to="`/series/${one.id}`"
              ><SeriesMark :mark="one.mark" />{{ one.title }}</router-link
            >
            <p class="soft small">{{ one.sentence }}</p>
          </div>
          <p>
            {{ one.nextLocalStart ? `next ${whenWords(one.nextStart!, one.nextLocalStart)}` : 'no coming meeting' }}
          </p>
          <p class="soft small">{{ count(one.openActions, 'open action') }} · kept by {{ one.keeper.name }}</p>
        </li>
      </ul>
      <div v-else class="stack">
        <p>You are in no series yet. Make one, and ask the people who should come.</p>
        <v-btn to="/series/new">New series</v-btn>
      </div>
      <button v-if="hasMore" class="quiet" @click="more()">Show more</button>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: baseline;
}
.name {
  font-size: 1.1429rem;
  text-decoration: none;
}
@media (max-width: 860px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
