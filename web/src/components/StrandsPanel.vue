<script setup lang="ts">
import { ref } from 'vue'
import ProblemNote from './ProblemNote.vue'
import SeriesFigures from './SeriesFigures.vue'
import StrandChoice from './StrandChoice.vue'
import Strands from './Strands.vue'
import type { Schemas } from '../api/client'
import { FIRST_WISH, useStrands } from '../composables/useStrands'
import { count } from '../time'

/** What carries over in a series, drawn and counted. */
const { seriesId } = defineProps<{ seriesId: string; figures: Schemas['Figures'] | null }>()
const wish = ref(FIRST_WISH)
const { strands, error } = useStrands(() => seriesId, wish)
</script>

<template>
  <div>
    <ProblemNote :error="error" />
    <template v-if="strands">
      <StrandChoice v-model="wish" :owners="strands.owners" :stuck-at="strands.stuckAt" />
      <Strands :key="`${wish.past} ${strands.columns.length}`" :strands="strands" />
      <p v-if="strands.rows.length === 0" class="soft none">
        {{
          strands.owners.length || strands.notShown
            ? 'No action fits.'
            : 'No action has been raised yet. Type a line such as “Ines to order shackles by Friday” on a sheet.'
        }}
      </p>
      <p v-if="strands.notShown" class="small soft">
        {{ count(strands.notShown, 'action') }} of these meetings {{ strands.notShown === 1 ? 'is' : 'are' }} not drawn.
        <button v-if="wish.closed !== 'all'" type="button" class="quiet" @click="wish = { ...wish, closed: 'all' }">
          Draw all closed ones
        </button>
      </p>
    </template>
    <SeriesFigures v-if="figures?.meetings" :figures="figures" />
  </div>
</template>

<style scoped>
.none {
  padding: 6px 0 14px;
}
</style>
