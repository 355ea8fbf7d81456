<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import type { Schemas } from '../api/client'
import type { ShownLine } from '../deeds'
import { editDraft, hasDraft } from '../composables/useDraft'
import { useLineKeys, wayBehind } from '../composables/useLineKeys'
import LineClash from './LineClash.vue'
import LineForm from './LineForm.vue'
import LineWords from './LineWords.vue'

/** One line of the minutes: read, put right, edited and moved where it stands, by hand or by keys. */
const { line, people, canWrite } = defineProps<{
  line: ShownLine
  people: { id: string; name: string }[]
  canWrite: boolean
  belowQuorum?: boolean
  /** Whether others may be asked to this meeting. */
  mayAsk?: boolean
}>()
const emit = defineEmits<{
  change: [body: Schemas['ChangedLine'], version: number]
  remove: []
  move: [by: 1 | -1]
  drop: [onto: string]
  indent: [to: 0 | 1]
  settle: [how: 'theirs' | 'mine' | 'both']
  tryAgain: []
  discard: []
  hold: [editing: boolean]
  oneEach: []
  split: [before: string, after: string]
  apart: [parts: string[]]
  called: [word: string, personId: string]
  ask: [personId: string]
  join: [text: string]
  motion: []
}>()

const MARKS = { note: '', decision: 'Decided', action: 'Action' }
// What was put to the vote and not carried decides nothing.
const mark = computed(() => (['lost', 'tied'].includes(line.motion?.outcome ?? '') ? 'Motion' : MARKS[line.kind]))
// What was half done before a reload is open again.
const editing = ref(canWrite && hasDraft(editDraft(line.id)))
const box = ref<HTMLElement>()
onMounted(() => editing.value && emit('hold', true))
/** Where the hand was: it goes back there, or else stays with the line. */
let from: Element | null = null

function edit() {
  from = document.activeElement
  editing.value = true
  emit('hold', true)
}
function leave(onTo?: HTMLElement) {
  editing.value = false
  emit('hold', false)
  nextTick(() => {
    const back = from instanceof HTMLElement && from.isConnected && from !== document.body ? from : onTo
    ;(back ?? box.value?.querySelector<HTMLElement>('[data-edit]'))?.focus()
  })
}
function save(body: Schemas['ChangedLine'], version: number) {
  emit('change', body, version)
  leave()
}
function remove() {
  emit('remove')
  leave(wayBehind(box.value!))
}

/** Where it is asked who "the crew" is: whoever is chosen is called so from now on. */
function giveTo(word: string, personId: string) {
  choose(personId)
  emit('called', word, personId)
}
const owners = computed(() => line.action?.owners ?? [])
// A new reading may bring owners; an action that was chosen by key is read for them, too.
const make = (kind: Schemas['LineKind']) =>
  kind !== line.kind &&
  emit('change', { kind, text: kind === 'note' ? (line.typed ?? line.text) : line.text }, line.version)
const choose = (personId: string) =>
  emit(
    'change',
    {
      kind: 'action',
      text: line.text,
      action: { ownerIds: [...owners.value.map(owner => owner.id), personId], dueOn: line.action?.dueOn ?? null },
    },
    line.version,
  )

const onKey = useLineKeys(() => line, {
  make,
  remove: () => emit('remove'),
  motion: () => emit('motion'),
  move: by => emit('move', by),
  indent: to => emit('indent', to),
})
// With a finger as with a mouse: the line goes below the one it is let go on.
function letGo(event: PointerEvent) {
  const onto = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-line]')
  if (onto?.dataset.line && onto.dataset.line !== line.id) emit('drop', onto.dataset.line)
}
</script>

<template>
  <li
    ref="box"
    class="line"
    :class="[line.kind, { indented: line.indent === 1, unsent: line.entry, waits: !line.version && line.entry }]"
    :data-line="line.id"
  >
    <span class="mark">{{ mark }}</span>
    <LineClash
      v-if="line.entry?.theirs !== undefined"
      :mine="line.text"
      :theirs="line.entry.theirs"
      @settle="how => emit('settle', how)"
    />
    <LineForm
      v-else-if="editing"
      :line="line"
      :people="people"
      @save="save"
      @leave="leave()"
      @remove="remove"
      @split="
        (before, after) => {
          emit('split', before, after)
          leave()
        }
      "
      @join="
        text => {
          emit('join', text)
          leave()
        }
      "
    >
      <span v-if="line.gone" class="alarm small"
        >Somebody removed this line meanwhile. Save keeps it as a new one.</span
      >
      <template v-else>
        <button type="button" class="quiet" aria-label="Move the line up" @click="emit('move', -1)">↑</button>
        <button type="button" class="quiet" aria-label="Move the line down" @click="emit('move', 1)">↓</button>
        <button type="button" class="quiet" @click="emit('indent', line.indent ? 0 : 1)">
          {{ line.indent ? 'Outdent' : 'Indent' }}
        </button>
      </template>
    </LineForm>
    <p v-else>
      <LineWords :line="line" :below-quorum="belowQuorum" />
      <template v-if="canWrite && !line.entry">
        <span v-for="doubt in line.doubtful" :key="doubt.question" class="doubt no-print">
          {{ doubt.question }}
          <select
            v-if="doubt.kind === 'office'"
            class="in-line"
            :aria-label="doubt.question"
            @change="giveTo(doubt.said, ($event.target as HTMLSelectElement).value)"
          >
            <option value="">somebody of the series …</option>
            <option v-for="person in people" :key="person.id" :value="person.id">{{ person.name }}</option>
          </select>
          <button v-if="doubt.parts.length" type="button" class="quiet" @click="emit('apart', doubt.parts)">
            Make it {{ doubt.parts.length }} lines
          </button>
          <template v-if="doubt.kind !== 'stranger' || mayAsk">
            <button
              v-for="person in doubt.people"
              :key="person.id"
              type="button"
              class="quiet"
              @click="doubt.kind === 'stranger' ? emit('ask', person.id) : choose(person.id)"
            >
              {{ doubt.kind === 'stranger' ? `Ask ${person.name} to this meeting` : person.name }}
            </button>
          </template>
        </span>
      </template>
      <span v-if="line.entry?.refusal" class="no-print">
        <span class="alarm">{{ line.entry.refusal }}</span>
        <button type="button" class="quiet" @click="emit('tryAgain')">Try again</button>
        <button type="button" class="quiet alarm" @click="emit('discard')">Discard</button>
      </span>
      <span v-else-if="line.entry" class="small soft on-its-way no-print">
        unsent: saved in this browser, sent as soon as there is a connection</span
      >
      <span v-if="canWrite" class="tools no-print">
        <button
          v-if="canWrite"
          type="button"
          class="quiet edit no-print"
          data-edit
          :aria-label="`Edit the line: ${line.text}`"
          @click="edit"
          @keydown="onKey"
        >
          Edit
        </button>
        <button
          v-if="canWrite && line.kind === 'decision' && !line.entry"
          type="button"
          class="quiet edit no-print"
          tabindex="-1"
          :aria-label="`Motion: ${line.text}`"
          @click="emit('motion')"
        >
          Motion
        </button>
        <button
          v-if="canWrite && (line.action?.owners.length ?? 0) > 1 && !line.entry"
          type="button"
          class="quiet edit no-print"
          tabindex="-1"
          :aria-label="`One each: ${line.text}`"
          @click="emit('oneEach')"
        >
          One each
        </button>
        <button
          v-if="canWrite && line.kind !== 'note' && line.typed !== line.text && !line.entry"
          type="button"
          class="quiet edit no-print"
          tabindex="-1"
          :aria-label="`Just a note: ${line.text}`"
          @click="make('note')"
        >
          Just a note</button
        ><button
          v-if="canWrite && !line.gone"
          type="button"
          class="edit handle no-print"
          tabindex="-1"
          :aria-label="`Drag the line: ${line.text}`"
          @pointerdown="($event.target as Element).setPointerCapture?.($event.pointerId)"
          @pointerup="letGo"
        />
      </span>
    </p>
  </li>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 58px 1fr;
  gap: 12px;
  padding: 3px 0;
}
.indented > :not(.mark) {
  padding-left: 26px;
}
.mark {
  text-align: right;
  font-size: 0.8571rem;
  font-weight: 700;
  padding-top: 2px;
}
.decision .mark {
  color: var(--pine);
}
.action .mark {
  color: var(--carried-ink);
}
/* Three strokes as a background: a picture in each line would be a layer in each line. */
.handle {
  touch-action: none;
  cursor: grab;
  width: 20px;
  height: 14px;
  border: 0;
  vertical-align: middle;
  background: repeating-linear-gradient(currentcolor 0 1.6px, transparent 0 4px) center / 10px 10px no-repeat;
}
p {
  overflow-wrap: anywhere;
  font-size: 1.0714rem;
}
/* Beside the words, so that a line that is full needs no row for what is not seen. */
p {
  position: relative;
}
.tools {
  position: absolute;
  right: 0;
  bottom: 0;
  white-space: nowrap;
}
.line:hover .tools,
.tools:focus-within {
  background: var(--sheet);
}
/* Out of sight by colour: a layer of its own for each (as opacity makes) would slow down every key of a long sheet. */
.edit {
  color: transparent;
  font-size: 0.8571rem;
  font-weight: 500;
  margin-left: 6px;
}
.line:hover .edit,
.edit:focus,
.edit:focus ~ .edit {
  color: var(--pine);
}
.doubt {
  color: var(--carried-ink);
}
/* A moment on its way is no news. */
.on-its-way {
  animation: appear 0s 1.5s both;
}
@keyframes appear {
  from {
    visibility: hidden;
  }
}
@media (hover: none) {
  .edit {
    color: var(--pine);
  }
  .tools {
    position: static;
    white-space: normal;
  }
}
@media (max-width: 860px) {
  .edit {
    color: var(--pine);
  }
  .tools {
    position: static;
    white-space: normal;
  }
  .line {
    grid-template-columns: 1fr;
    gap: 0;
  }
  .mark {
    text-align: left;
  }
  .mark:empty {
    display: none;
  }
}
</style>
