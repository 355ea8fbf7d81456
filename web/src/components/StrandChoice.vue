<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import type { StrandWish } from '../composables/useStrands'

/** Which strands are drawn: how far back, which of the closed ones, and whose; and what the colours mean. */
const { owners = [], stuckAt = 3 } = defineProps<{ owners?: Schemas['Named'][]; stuckAt?: number }>()
const wish = defineModel<StrandWish>({ required: true })
const set = (part: Partial<StrandWish>) => {
  wish.value = { ...wish.value, ...part }
}
const BACK = [
  { title: '11', value: '11' },
  { title: '26', value: '26' },
  { title: '52', value: '52' },
  { title: 'all', value: 'all' },
]
const CLOSED = [
  { title: 'the latest', value: 'latest' },
  { title: 'all of them', value: 'all' },
  { title: 'none', value: 'none' },
]
const whose = computed(() => [
  { title: 'everybody’s', value: null },
  ...owners.map(one => ({ title: one.name, value: one.id })),
])
</script>

<template>
  <div class="row spread">
    <p class="legend small soft">
      <i class="new" /> new <i class="car" /> carried, the thicker the more often <i class="stu" /> stuck: carried
      {{ stuckAt }} times or more, with no day ahead; do it, split it or drop it
    </p>
    <div class="choice">
      <v-select
        :model-value="wish.past"
        :items="BACK"
        label="Meetings back"
        @update:model-value="past => set({ past })"
      />
      <v-select
        :model-value="wish.closed"
        :items="CLOSED"
        label="Closed ones"
        @update:model-value="closed => set({ closed })"
      />
      <v-select
        v-if="owners.length"
        :model-value="wish.ownerId ?? null"
        :items="whose"
        label="Whose"
        @update:model-value="id => set({ ownerId: id ?? undefined })"
      />
    </div>
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  flex: 0 1 480px;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
  margin: 8px 0 10px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 4px;
  margin: 0 3px 2px 12px;
}
.legend i:first-child {
  margin-left: 0;
}
.legend .new {
  height: 2px;
  background: var(--fresh);
}
.legend .car {
  background: var(--carried);
}
.legend .stu {
  height: 7px;
  margin-bottom: 1px;
  background: var(--alarm);
}
</style>
