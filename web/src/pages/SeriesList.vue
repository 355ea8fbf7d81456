<script setup lang="ts">
import { ref } from 'vue'
import InvitationDialog from '../components/InvitationDialog.vue'
import SeriesMark from '../components/SeriesMark.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useKeys } from '../composables/useKeys'
import { useSession } from '../composables/useSession'
import { useSeriesList } from '../composables/useSeries'
import { router } from '../router'
import { clock, count, mediumDay, ownTime } from '../time'
import { untoldSentence } from '../untold'

const { person } = useSession()
const { series, error, more, hasMore } = useSeriesList()
const whenWords = (start: string, local: string) =>
  `${mediumDay(local)}, ${clock(local)}${ownTime(start, local, person.value?.timeZone)}`
const sending = ref<string | null>(null)
const open = ref(false)
function send(id: string) {
  sending.value = id
  open.value = true
}
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
        <li
          v-for="(one, i) in series"
          :key="one.id"
          class="line"
          :class="{ ended: one.ended, first: one.ended && !series[i - 1]?.ended }"
        >
          <div>
            <router-link class="strong name" :to="`/series/${one.id}`"
              ><SeriesMark :mark="one.mark" />{{ one.title }}</router-link
            >
            <p class="soft small">{{ one.sentence }}</p>
            <p v-if="one.untold" class="small carried">
              {{ untoldSentence(one.untold) }}
              <button
                v-if="one.untold.people > 0"
                type="button"
                class="quiet small"
                :aria-label="`Send to people of ${one.title}`"
                @click="send(one.id)"
              >
                Send …
              </button>
            </p>
          </div>
          <p>
            {{
              one.nextLocalStart ? `next ${whenWords(one.nextStart!, one.nextLocalStart)}` : 'ended: no coming meeting'
            }}
          </p>
          <p class="soft small">{{ count(one.openActions, 'open action') }} · kept by {{ one.keeper.name }}</p>
        </li>
      </ul>
      <div v-else class="stack">
        <p>You are in no series yet. Make one, and ask the people who should come.</p>
        <v-btn to="/series/new">New series</v-btn>
      </div>
      <InvitationDialog v-if="sending" v-model="open" :series-id="sending" />
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
.ended .name {
  color: var(--soft);
  font-weight: 500;
}
.first {
  border-top: 3px double var(--line);
}
@media (max-width: 860px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
