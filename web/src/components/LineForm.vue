<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { editDraft, hasDraft, useDraft } from '../composables/useDraft'
import type { Schemas } from '../api/client'
import type { ShownLine } from '../deeds'
import DateField from './DateField.vue'

/** A line where it stands, being edited. Enter saves, Shift+Enter begins a new row, Ctrl+Enter makes two of it. */
const { line, people } = defineProps<{ line: ShownLine; people: { id: string; name: string }[] }>()
const emit = defineEmits<{
  save: [Schemas['ChangedLine'], version: number]
  split: [before: string, after: string]
  join: [text: string]
  remove: []
  leave: []
}>()

const KINDS = [
  { title: 'Note', value: 'note' },
  { title: 'Decision', value: 'decision' },
  { title: 'Action', value: 'action' },
]
// Half done, it outlives a reload, with the version that was seen when it was begun.
const began = {
  kind: line.kind,
  text: line.text,
  ownerIds: line.action?.owners.map(owner => owner.id) ?? [],
  dueOn: line.action?.dueOn ?? '',
  seen: line.version,
}
const resumed = hasDraft(editDraft(line.id))
const { draft: form, forget } = useDraft(editDraft(line.id), () => ({ ...began }))
function leave() {
  forget()
  emit('leave')
}
// A decision may give somebody work, too.
const asks = computed(() => form.value.kind === 'action' || (form.value.kind === 'decision' && !!line.action))
const field = ref<{ $el: HTMLElement }>()
const box = computed(() => field.value?.$el.querySelector('textarea'))
onMounted(() => resumed || box.value?.focus())

function save() {
  const { kind, text, ownerIds, dueOn } = form.value
  if (!text.trim()) return remove()
  saveAs({ kind, text, action: asks.value ? { ownerIds, dueOn: dueOn || null } : null })
}
function saveAs(body: Schemas['ChangedLine']) {
  const { seen } = form.value
  forget()
  emit('save', body, seen)
}
function remove() {
  forget()
  emit('remove')
}
function onEnter(event: KeyboardEvent) {
  if (event.shiftKey || event.isComposing) return
  event.preventDefault()
  if (!event.ctrlKey) return save()
  const at = box.value?.selectionStart ?? 0
  // What stood between the two belongs to neither.
  const before = form.value.text
    .slice(0, at)
    .replace(/[\s,;–-]+$/, '')
    .trim()
  const after = form.value.text
    .slice(at)
    .replace(/^[\s,;–-]+(?:and\s)?/, '')
    .trim()
  if (!before || !after) return save()
  forget()
  emit('split', before, after)
}
function onBackspace(event: KeyboardEvent) {
  if (box.value?.selectionStart !== 0 || box.value.selectionEnd !== 0) return
  event.preventDefault()
  const text = form.value.text.trim()
  forget()
  emit('join', text)
}
</script>

<template>
  <form class="form" novalidate @submit.prevent="save" @keydown.esc.stop="leave">
    <p v-if="resumed" class="small carried strong" role="status">You had begun to edit this line.</p>
    <v-textarea
      ref="field"
      v-model="form.text"
      label="Line"
      rows="1"
      auto-grow
      @keydown.enter="onEnter"
      @keydown.backspace="onBackspace"
    />
    <div class="row">
      <v-select v-model="form.kind" :items="KINDS" label="Kind" class="kind" />
      <v-autocomplete
        v-if="asks"
        v-model="form.ownerIds"
        :items="people.map(person => ({ title: person.name, value: person.id }))"
        label="Owners"
        multiple
        chips
        class="grow"
      />
      <DateField v-if="asks" v-model="form.dueOn" label="Due" class="kind" />
    </div>
    <div class="row">
      <v-btn type="submit" size="small">Save</v-btn>
      <button type="button" class="quiet" @click="saveAs({ text: form.text })">Read it again</button>
      <button type="button" class="quiet" @click="leave">Cancel</button>
      <button type="button" class="quiet alarm" @click="remove">Remove the line</button>
      <slot />
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
  padding: 6px 0;
}
.kind {
  max-width: 160px;
}
.grow {
  flex: 1;
}
</style>
