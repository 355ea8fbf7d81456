<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { ProblemError, type Line, type Schemas } from '../api/client'
import { useMotion } from '../composables/useMotion'
import FormDialog from './FormDialog.vue'

/** How a decision was put and voted on: counted, or by name. */
const { line, people, meetingId, voteRule } = defineProps<{
  line: Line
  people: { id: string; name: string; attendance?: string | null }[]
  meetingId: string
  voteRule: Schemas['VoteRule']
}>()
const open = defineModel<boolean>({ required: true })

const RULES = [
  { title: 'a majority of the votes', value: 'votes' },
  { title: 'a majority of those present', value: 'present' },
  { title: 'two thirds of the votes', value: 'two_thirds' },
]
const VOTES = [
  ['in_favour', 'for'],
  ['against', 'against'],
  ['abstained', 'abstained'],
] as const
type Vote = Schemas['VoteWord'] | ''
const form = ref({
  proposerId: null as string | null,
  seconderId: null as string | null,
  rule: 'votes' as Schemas['VoteRule'],
  inFavour: 0,
  against: 0,
  abstained: 0,
  byName: false,
  votes: {} as Record<string, Vote>,
})
watch(
  open,
  shown => {
    if (!shown) return
    const motion = line.motion
    form.value = {
      proposerId: motion?.proposer?.id ?? null,
      seconderId: motion?.seconder?.id ?? null,
      rule: motion?.rule ?? voteRule,
      inFavour: motion?.inFavour ?? 0,
      against: motion?.against ?? 0,
      abstained: motion?.abstained ?? 0,
      byName: Object.keys(motion?.votes ?? {}).length > 0,
      votes: { ...motion?.votes },
    }
  },
  { immediate: true },
)
const names = computed(() => [
  { title: 'nobody in particular', value: null },
  ...people.map(person => ({ title: person.name, value: person.id })),
])
const voters = computed(() =>
  people.filter(
    person => ['present', 'on_call', 'late'].includes(person.attendance ?? '') || form.value.votes[person.id],
  ),
)

const { save, remove, saveError, isSaving } = useMotion(() => meetingId)
/** More votes than people: counted again, or meant. */
const asksBack = computed(() => saveError.value instanceof ProblemError && saveError.value.code === 'more-votes')
async function keep(anyway = false) {
  const { byName, votes, ...rest } = form.value
  const given = Object.entries(votes).flatMap(([personId, vote]) => (vote ? [{ personId, vote }] : []))
  try {
    await save({ lineId: line.id, ...rest, votes: byName ? given : [], anyway })
    open.value = false
  } catch {
    /* shown in the form */
  }
}
async function withdraw() {
  await remove(line.id)
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`motion-${line.id}`"
    title="Motion"
    verb="Save"
    :error="saveError"
    :busy="isSaving"
    @submit="keep()"
  >
    <p class="strong">{{ line.text }}</p>
    <v-select v-model="form.proposerId" :items="names" label="Proposed by" />
    <v-select v-model="form.seconderId" :items="names" label="Seconded by" />
    <v-select v-model="form.rule" :items="RULES" label="Carried by" />
    <v-checkbox v-model="form.byName" label="Votes by name" />
    <div v-if="!form.byName" class="three">
      <v-text-field v-model.number="form.inFavour" type="number" min="0" label="For" />
      <v-text-field v-model.number="form.against" type="number" min="0" label="Against" />
      <v-text-field v-model.number="form.abstained" type="number" min="0" label="Abstained" />
    </div>
    <ul v-else class="ruled">
      <li v-for="person in voters" :key="person.id" class="row spread">
        <span>{{ person.name }}</span>
        <select v-model="form.votes[person.id]" :aria-label="`${person.name} votes`">
          <option value="">–</option>
          <option v-for="[value, title] in VOTES" :key="value" :value="value">{{ title }}</option>
        </select>
      </li>
      <li v-if="voters.length === 0" class="soft small">Nobody is marked as here yet.</li>
    </ul>
    <button v-if="asksBack" type="button" class="quiet" @click="keep(true)">Save it all the same</button>
    <button v-if="line.motion" type="button" class="quiet" @click="withdraw">It was no motion</button>
  </FormDialog>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(112px, 1fr));
  gap: 10px;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
}
</style>
