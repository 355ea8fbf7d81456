<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import { ProblemError, type Schemas } from '../api/client'
import { useStandingAgenda } from '../composables/useAgenda'
import { useDraft } from '../composables/useDraft'
import { useNotice } from '../composables/useNotice'
import ProblemNote from './ProblemNote.vue'
import { useFaults } from '../composables/useFaults'

/** The standing agenda: what each sheet to come begins with, after what is left over. */
const { seriesId, mayChange } = defineProps<{ seriesId: string; mayChange: boolean }>()
const { agenda, error, set, setError, isSetting, readAgain } = useStandingAgenda(() => seriesId)
const { say } = useNotice()

const CLOSED = 'For who must come, the keeper, the chair and deputies alone. Others read “Closed topic”.'
const PURPOSES = [
  { title: 'for information', value: 'information' },
  { title: 'for discussion', value: 'discussion' },
  { title: 'for decision', value: 'decision' },
]
type Row = Required<Schemas['StandingTopic']>
interface Draft {
  rows: Row[]
  seen: number
}
// What is being changed, from the state that was seen, outlives a reload.
const { draft, forget } = useDraft<Draft | null>(`standing-agenda-${seriesId}`, () => null)
const rows = ref<Row[]>(draft.value?.rows ?? [])
const seen = ref(draft.value?.seen ?? 0)
const asRow = (topic: Schemas['StandingTopic']): Row => ({
  ...topic,
  presenterId: topic.presenterId ?? null,
  text: topic.text ?? '',
  sub: topic.sub ?? false,
  closed: topic.closed ?? false,
})
const untouched = ref('[]')
const changed = computed(() => JSON.stringify(rows.value) !== untouched.value)
function show(read: Schemas['StandingAgenda']) {
  rows.value = read.topics.map(asRow)
  seen.value = read.number
  untouched.value = JSON.stringify(rows.value)
  forget()
}
watch(agenda, now => now && !changed.value && show(now), { immediate: true })
watch(rows, () => changed.value && (draft.value = { rows: rows.value, seen: seen.value }), { deep: true })
const people = computed(() => [
  { title: 'nobody in particular', value: null },
  ...(agenda.value?.people ?? []).map(person => ({ title: person.name, value: person.id })),
])
const { at } = useFaults(setError)

const titles = useTemplateRef<{ focus: () => void }[]>('titles')
async function add() {
  rows.value.push({
    id: newKey(),
    title: '',
    purpose: 'discussion',
    lengthMin: 5,
    presenterId: null,
    text: '',
    sub: false,
    closed: false,
  })
  await nextTick()
  titles.value?.at(-1)?.focus()
}
function move(i: number, by: number) {
  const to = i + by
  if (to < 0 || to >= rows.value.length) return
  const [row] = rows.value.splice(i, 1)
  rows.value.splice(to, 0, row!)
}
async function save() {
  try {
    const topics = rows.value.map(row => ({ ...row, lengthMin: Number(row.lengthMin) || 0 }))
    show(await set({ number: seen.value, topics }))
    say('Saved. Sheets to come that nobody has worked on follow; the others are offered what is different.')
  } catch {
    /* shown below */
  }
}
async function theirs() {
  const read = await readAgain()
  if (read.data) show(read.data)
}
</script>

<template>
  <ProblemNote :error="error" />
  <form v-if="agenda" novalidate @submit.prevent="save">
    <p class="soft small">
      Each sheet to come begins with what is left over, then with these topics. They do not carry over: the next sheet
      has its own.
    </p>
    <ol class="ruled">
      <li v-for="(row, i) in rows" :key="row.id" :class="{ sub: row.sub }" class="one">
        <template v-if="mayChange">
          <v-text-field
            ref="titles"
            v-model="row.title"
            class="title"
            :label="`Topic ${i + 1}`"
            :error-messages="at(`/topics/${i}/title`)"
            maxlength="200"
          />
          <v-text-field v-model="row.lengthMin" class="min" type="number" min="0" max="480" label="Minutes" />
          <v-select v-model="row.presenterId" class="who" :items="people" label="Brought by" />
          <v-select v-model="row.purpose" class="who" :items="PURPOSES" label="What for" />
          <v-textarea v-model="row.text" class="title" rows="1" auto-grow label="Text beneath" maxlength="10000" />
          <div class="deeds small">
            <v-checkbox v-model="row.sub" label="A part of the topic above" :disabled="i === 0" />
            <v-checkbox v-model="row.closed" label="Closed" :title="CLOSED" />
            <button
              type="button"
              class="quiet"
              :aria-label="`Up: ${row.title}`"
              :disabled="i === 0"
              @click="move(i, -1)"
            >
              Up
            </button>
            <button
              type="button"
              class="quiet"
              :aria-label="`Down: ${row.title}`"
              :disabled="i === rows.length - 1"
              @click="move(i, 1)"
            >
              Down
            </button>
            <button
              type="button"
              class="quiet"
              :aria-label="`Remove: ${row.title}`"
              @click="rows = rows.filter(one => one.id !== row.id)"
            >
              Remove
            </button>
          </div>
        </template>
        <template v-else>
          <span class="strong">{{ row.title }}</span> <span class="soft small">{{ row.lengthMin }} min</span>
        </template>
      </li>
    </ol>
    <p v-if="rows.length === 0" class="soft">Nothing stands on it yet.</p>
    <div v-if="mayChange" class="row">
      <v-btn variant="outlined" @click="add">Add a topic</v-btn>
      <v-btn type="submit" :disabled="!changed" :loading="isSetting">Save</v-btn>
      <button v-if="changed" type="button" class="quiet" @click="show(agenda)">Cancel</button>
    </div>
    <ProblemNote v-if="setError" :error="setError" />
    <button
      v-if="setError instanceof ProblemError && setError.code === 'changed-since'"
      type="button"
      class="quiet"
      @click="theirs"
    >
      Show theirs
    </button>
  </form>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
}
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  padding: 12px 0;
}
.one.sub {
  margin-left: 22px;
}
.title {
  flex: 1 1 320px;
}
.min {
  flex: 0 0 92px;
}
.who {
  flex: 1 1 150px;
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
}
.row {
  display: flex;
  gap: 12px;
  margin-top: 12px;
}
</style>
