<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Sheet } from '../api/client'
import { useDoor } from '../composables/useDoor'
import { useRow, useRowPicking } from '../composables/useRow'
import { clock, count, list } from '../time'
import FormDialog from './FormDialog.vue'
import RowForm from './RowForm.vue'
import RowPlanForm from './RowPlanForm.vue'

/** One after another: people from outside with times of their own, let in one by one. */
type Slot = Sheet['row'][number]
const { sheet } = defineProps<{ sheet: Sheet }>()
const emit = defineEmits<{ show: [Sheet] }>()
const show = (shown: Sheet) => emit('show', shown)
const door = useDoor(() => sheet.id, show)
const { tell, delay } = useRow(() => sheet.id, show)
const { ask } = useRowPicking(() => sheet.id, show)
const editing = ref(false)
const planning = ref(false)
const silent = computed(() => (sheet.rowPickers ?? []).filter(one => !one.picked))
const unasked = computed(() => silent.value.filter(one => !one.asked))
/** Said before anybody is asked: not all will find a time. */
const tooFew = computed(() => {
  const people = sheet.rowPickers?.length ?? 0
  const times = sheet.rowPlan?.times ?? people
  return times < people && silent.value.length && sheet.may.hold && sheet.state === 'planned'
    ? `${count(people, 'person')}, ${count(times, 'time')}: not all will find one. Make them shorter, or ask fewer.`
    : ''
})
/** Who is to come in while somebody else is still in. */
const next = ref<{ slot: Slot; before: Slot } | null>(null)
const asking = ref(false)
const WORDS: Record<Slot['state'], string> = { not_yet: '', waits: 'at the door', in: 'in', been: 'has been' }
const DELAYS = [0, 5, 10, 15, 20, 30, 45, 60]

function letIn(slot: Slot) {
  const before = sheet.row.find(one => one.state === 'in' && one.id !== slot.id)
  if (!before) return door.letIn(slot.visit!)
  next.value = { slot, before }
  asking.value = true
}
function takeOutFirst() {
  door.takeOut(next.value!.before.visit!)
  door.letIn(next.value!.slot.visit!)
  asking.value = false
}
function letInAsWell() {
  door.letIn(next.value!.slot.visit!)
  asking.value = false
}
</script>

<template>
  <section
    v-if="sheet.row.length || (sheet.may.hold && sheet.state === 'planned')"
    class="one-by-one"
    aria-labelledby="row"
  >
    <h2 id="row" class="eyebrow">One after another</h2>
    <ol>
      <li v-for="slot in sheet.row" :key="slot.id" class="row spread" :class="{ waits: slot.state === 'waits' }">
        <span
          ><b>{{ clock(slot.turnAt) }}</b> {{ slot.name }}
          <span class="small" :class="slot.state === 'in' ? 'fresh strong' : 'soft'">{{
            slot.told || slot.state !== 'not_yet' ? WORDS[slot.state] : 'not told yet'
          }}</span></span
        >
        <button
          v-if="sheet.may.hold && slot.state === 'waits'"
          type="button"
          class="quiet small"
          :aria-label="`Let in ${slot.name}, whose turn is ${clock(slot.turnAt)}`"
          @click="letIn(slot)"
        >
          Let in
        </button>
      </li>
    </ol>
    <p v-if="sheet.may.hold" class="row small">
      <button v-if="sheet.state === 'planned'" type="button" class="quiet small" @click="editing = true">
        {{ sheet.row.length ? 'Edit the times' : 'People with times of their own' }}
      </button>
      <button v-if="sheet.state === 'planned'" type="button" class="quiet small" @click="planning = true">
        {{ sheet.rowPlan ? 'Edit what they pick from' : 'Let people pick their times' }}
      </button>
      <button v-if="sheet.rowUntold" type="button" class="quiet small" @click="tell()">
        Tell {{ count(sheet.rowUntold, 'person') }}
      </button>
    </p>
    <p v-if="tooFew" class="small carried strong">{{ tooFew }}</p>
    <p v-if="sheet.rowPlan && silent.length && sheet.may.hold && sheet.state === 'planned'" class="small">
      <span class="soft">Not picked yet: {{ list(silent.map(one => one.name)) }}.</span>
      <button type="button" class="quiet small" @click="ask(!unasked.length)">
        {{ unasked.length ? `Ask ${count(unasked.length, 'person')} to pick` : 'Ask once more' }}
      </button>
    </p>
    <label v-if="sheet.may.hold && sheet.row.length && sheet.state === 'in_session'" class="small"
      >Runs late by
      <select
        :value="sheet.rowLateMin"
        aria-label="Runs late by"
        @change="delay(Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="minutes in DELAYS" :key="minutes" :value="minutes">{{ minutes }} minutes</option>
      </select></label
    >
    <RowForm v-model="editing" :sheet="sheet" @show="show" />
    <RowPlanForm v-model="planning" :sheet="sheet" @show="show" />
    <FormDialog
      v-if="next"
      v-model="asking"
      :title="`${next.before.name} is still in`"
      :verb="`Take ${next.before.name} out and let ${next.slot.name} in`"
      @submit="takeOutFirst"
    >
      <p>
        <button type="button" class="quiet" @click="letInAsWell()">Let {{ next.slot.name }} in as well</button>
      </p>
    </FormDialog>
  </section>
</template>

<style scoped>
.one-by-one {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
ol {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
.waits {
  background: var(--gold-pale);
}
select {
  border: 0;
  border-bottom: 1px dotted var(--soft);
  background: none;
  font: inherit;
}
</style>
