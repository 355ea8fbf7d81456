<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { list } from '../time'

/** With zones apart: who carries the early and late hours over the run, before and after taking turns. */
const { load } = defineProps<{ load: Schemas['RunTimes']['fairLoad'] }>()
defineEmits<{ take: [plan: Schemas['LoadPlan']] }>()

const rows = computed(() =>
  load.before.people
    .map(person => ({ ...person, after: load.rotation?.people.find(one => one.id === person.id)?.minutes ?? null }))
    .filter(row => row.minutes || row.after),
)
const most = computed(() => Math.max(1, ...rows.value.flatMap(row => [row.minutes, row.after ?? 0])))
</script>

<template>
  <section v-if="rows.length" class="load" aria-labelledby="fair">
    <h3 id="fair">Minutes outside their hours, over the run</h3>
    <table>
      <thead class="small soft">
        <tr>
          <th scope="col">Who</th>
          <th scope="col">at {{ load.before.clocks.join() }} always</th>
          <th v-if="load.rotation" scope="col">at {{ list(load.rotation.clocks) }} by turns</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id">
          <th scope="row">{{ row.name }}</th>
          <td><i class="before" :style="{ width: `${(90 * row.minutes) / most}px` }" /> {{ row.minutes }}</td>
          <td v-if="load.rotation">
            <i class="after" :style="{ width: `${(90 * (row.after ?? 0)) / most}px` }" /> {{ row.after }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="load.rotation" class="row">
      <v-btn size="small" variant="outlined" @click="$emit('take', load.rotation)">Make a series by turns</v-btn
      ><span v-if="load.rotation.missing" class="small alarm"
        >on {{ load.rotation.missing }} dates somebody who must come is busy</span
      >
    </p>
    <p v-else class="small soft">Taking turns between two or three times would not share it better.</p>
  </section>
</template>

<style scoped>
.load {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
  display: grid;
  gap: 8px;
}
h3 {
  font-size: 1.0714rem;
}
th {
  text-align: left;
  font-weight: 550;
  padding: 2px 18px 2px 0;
}
td {
  white-space: nowrap;
  padding-right: 18px;
}
i {
  display: inline-block;
  height: 9px;
  vertical-align: middle;
}
.before {
  background: var(--carried);
}
.after {
  background: var(--fresh);
}
</style>
