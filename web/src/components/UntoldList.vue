<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../api/client'
import { useNotices } from '../composables/useDesk'
import { mediumDay } from '../time'
import { untoldSentence } from '../untold'
import GiveAddress from './GiveAddress.vue'
import InvitationDialog from './InvitationDialog.vue'
import SeriesMark from './SeriesMark.vue'

/** What nobody, or not everybody, has been told of yet: a row a series, each sent from here. */
const { untold } = defineProps<{ untold: Schemas['UntoldSeries'][] }>()
const { putAside } = useNotices()
const sending = ref<string | null>(null)
const open = ref(false)
const rows = useTemplateRef<HTMLElement>('rows')
function send(seriesId: string) {
  sending.value = seriesId
  open.value = true
}
// The row that was sent is gone by then: the hand goes on to the next.
watch(open, async shown => {
  if (shown) return
  await nextTick()
  if (document.activeElement === document.body) rows.value?.querySelector<HTMLElement>('button')?.focus()
})
</script>

<template>
  <div ref="rows">
    <section v-if="untold.length" class="sheet untold" aria-labelledby="untold">
      <h2 id="untold">Not told yet</h2>
      <ul class="ruled">
        <li v-for="one in untold" :key="one.seriesId" class="row spread">
          <div class="what">
            <router-link class="strong" :to="`/series/${one.seriesId}`"
              ><SeriesMark :mark="one.mark" />{{ one.title }}</router-link
            >
            <p class="small soft">
              {{ untoldSentence(one)
              }}<template v-if="one.nextLocalStart"> · next {{ mediumDay(one.nextLocalStart) }}</template>
            </p>
          </div>
          <v-btn
            v-if="one.people > 0"
            size="small"
            variant="outlined"
            :aria-label="`Send to people of ${one.title}`"
            @click="send(one.seriesId)"
            >Send …</v-btn
          >
          <template v-else>
            <GiveAddress
              v-for="person in one.unreachable"
              :key="person.id"
              :series-id="one.seriesId"
              :person="person"
            />
            <v-btn size="small" variant="text" :aria-label="`Seen: ${one.title}`" @click="putAside(one.notice)"
              >Seen</v-btn
            >
          </template>
        </li>
      </ul>
    </section>
    <InvitationDialog v-if="sending" v-model="open" :series-id="sending" />
  </div>
</template>

<style scoped>
.untold {
  border-left: 4px solid var(--gold);
}
h2 {
  margin-bottom: 6px;
}
.what {
  min-width: 0;
}
</style>
