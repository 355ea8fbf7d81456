<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Schemas } from '../api/client'
import { lineDraft, useDraft } from '../composables/useDraft'
import { readLine } from '../composables/useSheet'
import { list, shortDay } from '../time'

/**
 * Where the next line goes. Enter takes what stands in the box at that moment; how it will be read is shown meanwhile
 * and never waited for.
 */
const { meetingId, topicId, topicTitle } = defineProps<{
  meetingId: string
  topicId: string | null
  topicTitle: string
}>()
const emit = defineEmits<{
  keep: [text: string, kind?: Schemas['LineKind']]
  keepSeveral: [texts: string[]]
  up: []
  typing: [half: boolean]
}>()

const { draft: text, forget } = useDraft(lineDraft(meetingId, topicId), () => '')
const reading = ref<Schemas['Reading'] | null>(null)
const justNote = ref(false)
const box = ref<HTMLTextAreaElement>()
const PAUSE_MS = 250

let timer: ReturnType<typeof setTimeout> | undefined
let asked: AbortController | undefined

async function read() {
  asked = new AbortController()
  try {
    reading.value = await readLine(meetingId, text.value, asked.signal)
  } catch {
    reading.value = null // nobody to ask just now: it is read when it is kept
  }
}
function forgetReading() {
  clearTimeout(timer)
  asked?.abort()
  reading.value = null
}

watch(
  text,
  now => {
    forgetReading()
    if (now.trim()) timer = setTimeout(read, PAUSE_MS)
    else justNote.value = false
  },
  { immediate: true },
)
const half = computed(() => text.value.trim() !== '')
watch(half, now => emit('typing', now), { immediate: true })
onBeforeUnmount(() => {
  forgetReading()
  emit('typing', false)
})

const offered = computed(() => (justNote.value || reading.value?.kind === 'note' ? null : reading.value))

function keepNow() {
  if (!text.value.trim()) return
  emit('keep', text.value.trim(), justNote.value ? 'note' : undefined)
  forget()
  justNote.value = false
}

function onEnter(event: KeyboardEvent) {
  if (event.shiftKey || event.isComposing) return
  event.preventDefault()
  keepNow()
}

// Several lines make several; what comes after the last break stays to be gone on with.
function onPaste(event: ClipboardEvent) {
  const pasted = event.clipboardData?.getData('text/plain').replace(/\r\n?/g, '\n') ?? ''
  if (!pasted.includes('\n')) return
  event.preventDefault()
  const { selectionStart: from, selectionEnd: to } = box.value!
  const lines = (text.value.slice(0, from) + pasted + text.value.slice(to)).split('\n')
  const last = lines.pop()!
  emit(
    'keepSeveral',
    lines.map(line => line.trim()).filter(line => line !== ''),
  )
  text.value = last
}

function onUp(event: KeyboardEvent) {
  if (text.value) return
  event.preventDefault()
  emit('up')
}

defineExpose({ focus: () => box.value?.focus(), keepNow })
</script>

<template>
  <div class="entry no-print" data-entry>
    <textarea
      ref="box"
      v-model="text"
      rows="1"
      :aria-label="`Next line under ${topicTitle}`"
      placeholder="Type a line"
      autocomplete="off"
      aria-describedby="reading"
      @keydown.enter="onEnter"
      @keydown.esc="justNote = !justNote"
      @keydown.up="onUp"
      @paste="onPaste"
    />
    <p id="reading" class="reading small" role="status">
      <template v-if="text.trim()">
        <span v-if="offered" class="offer">
          <template v-if="offered.kind === 'decision'"><b>Decision:</b> {{ offered.text }}</template>
          <template v-else
            ><b>Action</b> for
            <b>{{
              list(
                [
                  ...offered.owners.map(owner => owner.name),
                  ...offered.doubtful.filter(doubt => doubt.kind === 'name').map(doubt => `which ${doubt.said}?`),
                ],
                'nobody yet',
              )
            }}</b><template v-if="offered.dueOn"
              >, due <b>{{ shortDay(offered.dueOn) }}</b></template
            >: {{ offered.text }}</template
          >
        </span>
        <button v-if="offered || justNote" type="button" class="quiet" @click="justNote = !justNote">
          {{ justNote ? 'Read it after all' : 'Just a note' }} <kbd>Esc</kbd>
        </button>
        <span class="soft"><kbd>Enter</kbd> {{ justNote ? 'save as a note' : 'save' }}</span>
      </template>
    </p>
  </div>
</template>

<style scoped>
/* In reach while one looks back over a long topic. */
.entry {
  position: sticky;
  bottom: 0;
  z-index: 1;
  padding: 4px 0;
  background: color-mix(in srgb, var(--pine-pale) 45%, var(--sheet));
}
textarea {
  display: block;
  width: 100%;
  padding: 9px 12px;
  border: 1.5px solid var(--pine);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 1.0714rem;
  field-sizing: content;
  resize: none;
}
textarea:focus-visible {
  outline: 2px solid var(--pine);
  outline-offset: 0;
  border-radius: 6px;
}
.reading {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  min-height: 26px;
  margin-top: 6px;
}
.offer {
  background: var(--gold-pale);
  padding: 2px 9px;
  border-radius: 3px;
}
</style>
