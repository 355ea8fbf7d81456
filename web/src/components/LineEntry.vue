<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import type { Schemas } from '../api/client'
import { useDraft } from '../composables/useDraft'
import { readLine } from '../composables/useSheet'
import { list, shortDay } from '../time'

/**
 * Where the next line goes. What is typed is read as it stands: an action, a decision or a note, shown before it is
 * kept.
 */
const { meetingId, topicId, topicTitle } = defineProps<{
  meetingId: string
  topicId: string | null
  topicTitle: string
}>()
const emit = defineEmits<{ keep: [Schemas['NewLine']] }>()

const { draft: text, forget } = useDraft(`line-${meetingId}-${topicId}`, () => '')
const reading = ref<Schemas['Reading'] | null>(null)
const readText = ref('')
const chosen = ref<Record<string, string>>({})
const justNote = ref(false)
const box = ref<HTMLInputElement>()
const PAUSE_MS = 120

let timer: ReturnType<typeof setTimeout>
let asked: AbortController | undefined

async function read() {
  clearTimeout(timer)
  asked?.abort()
  asked = new AbortController()
  const current = text.value
  try {
    reading.value = current.trim() ? await readLine(meetingId, current, asked.signal) : null
    readText.value = current
  } catch {
    reading.value = null // nobody to ask just now: it is kept as a note
  }
}

watch(text, () => {
  justNote.value = false
  chosen.value = {}
  clearTimeout(timer)
  timer = setTimeout(read, PAUSE_MS)
})

const offered = computed(() =>
  reading.value && readText.value === text.value && reading.value.kind !== 'note' && !justNote.value
    ? reading.value
    : null,
)
const owners = computed(() => offered.value?.owners.map(owner => owner.name) ?? [])
const open = computed(() => offered.value?.doubtful.filter(doubt => !chosen.value[doubt.name]) ?? [])

async function keep() {
  if (!text.value.trim()) return
  if (!justNote.value && readText.value !== text.value) {
    await read()
    if (offered.value) return // seen first, kept with the next Enter
  }
  if (open.value.length) return
  const offer = offered.value
  emit('keep', {
    id: newKey(),
    topicId,
    kind: offer?.kind ?? 'note',
    text: offer?.text ?? text.value.trim(),
    action:
      offer?.kind === 'action'
        ? {
            id: newKey(),
            ownerIds: [...offer.owners.map(owner => owner.id), ...Object.values(chosen.value)],
            dueOn: offer.dueOn,
          }
        : null,
  })
  reading.value = null
  readText.value = ''
  forget()
}

const focus = () => box.value?.focus()
function choose(name: string, personId: string) {
  chosen.value[name] = personId
  focus()
}
defineExpose({ focus })
onMounted(() => {
  if (text.value) read()
})
</script>

<template>
  <div class="entry no-print">
    <input
      ref="box"
      v-model="text"
      :aria-label="`Next line under ${topicTitle}`"
      placeholder="Type a line"
      autocomplete="off"
      aria-describedby="reading"
      @keydown.enter.prevent="keep"
      @keydown.esc="justNote = true"
    />
    <p id="reading" class="reading" role="status">
      <template v-if="offered">
        <span class="offer">
          <template v-if="offered.kind === 'decision'"><b>Decided:</b> {{ offered.text }}</template>
          <template v-else>
            <b>Action</b> for
            <b>{{
              [...owners, ...Object.keys(chosen)].length
                ? list([
                    ...owners,
                    ...offered.doubtful
                      .filter(doubt => chosen[doubt.name])
                      .map(doubt => doubt.people.find(person => person.id === chosen[doubt.name])!.name),
                  ])
                : 'nobody yet'
            }}</b><template v-if="offered.dueOn"
              >, due <b>{{ shortDay(offered.dueOn) }}</b></template
            >
          </template>
        </span>
        <span v-for="doubt in open" :key="doubt.name" class="doubt">
          Which {{ doubt.name }}?
          <button
            v-for="person in doubt.people"
            :key="person.id"
            type="button"
            class="quiet"
            @click="choose(doubt.name, person.id)"
          >
            {{ person.name }}
          </button>
        </span>
        <span v-if="open.length === 0"><kbd>Enter</kbd> save</span><span><kbd>Esc</kbd> just a note</span>
      </template>
      <span v-else-if="text.trim()" class="soft small"><kbd>Enter</kbd> save as a note</span>
    </p>
  </div>
</template>

<style scoped>
input {
  width: 100%;
  padding: 9px 12px;
  border: 1.5px solid var(--pine);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 1.0714rem;
}
input:focus-visible {
  outline: 2px solid var(--pine) !important;
  outline-offset: 0;
  border-radius: 6px;
}
.reading {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  min-height: 26px;
  margin-top: 6px !important;
}
.offer {
  background: var(--gold-pale);
  padding: 2px 9px;
  border-radius: 3px;
}
.doubt {
  color: var(--carried-ink);
}
</style>
