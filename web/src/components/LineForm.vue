<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { Schemas } from '../api/client'
import type { ShownLine } from '../deeds'
import DateField from './DateField.vue'

/** A line where it stands, being edited. Enter saves, Shift+Enter begins a new row, Ctrl+Enter makes two of it. */
const { line, people } = defineProps<{ line: ShownLine; people: { id: string; name: string }[] }>()
const emit = defineEmits<{
  save: [Schemas['ChangedLine']]
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
const form = ref({
  kind: line.kind,
  text: line.text,
  ownerIds: line.action?.owners.map(owner => owner.id) ?? [],
  dueOn: line.action?.dueOn ?? '',
})
// A decision may give somebody work, too.
const asks = computed(() => form.value.kind === 'action' || (form.value.kind === 'decision' && !!line.action))
const field = ref<{ $el: HTMLElement }>()
const box = computed(() => field.value?.$el.querySelector('textarea'))
onMounted(() => box.value?.focus())

function save() {
  const { kind, text, ownerIds, dueOn } = form.value
  if (!text.trim()) return emit('remove')
  emit('save', { kind, text, action: asks.value ? { ownerIds, dueOn: dueOn || null } : null })
}
function onEnter(event: KeyboardEvent) {
  if (event.shiftKey || event.isComposing) return
  event.preventDefault()
  if (!event.ctrlKey) return save()
  const at = box.value?.selectionStart ?? 0
  const [before, after] = [form.value.text.slice(0, at).trim(), form.value.text.slice(at).trim()]
  if (before && after) emit('split', before, after)
  else save()
}
function onBackspace(event: KeyboardEvent) {
  if (box.value?.selectionStart !== 0 || box.value.selectionEnd !== 0) return
  event.preventDefault()
  emit('join', form.value.text.trim())
}
</script>

<template>
  <form class="form" novalidate @submit.prevent="save" @keydown.esc.stop="emit('leave')">
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
      <button type="button" class="quiet" @click="emit('save', { text: form.text })">Read it again</button>
      <button type="button" class="quiet" @click="emit('leave')">Cancel</button>
      <button type="button" class="quiet alarm" @click="emit('remove')">Remove the line</button>
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
