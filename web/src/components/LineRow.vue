<script setup lang="ts">
import { ref } from 'vue'
import type { Line, Schemas } from '../api/client'
import { list, shortDay } from '../time'
import DateField from './DateField.vue'

/** One line of the minutes; changed where it stands. */
const { line, people, canWrite } = defineProps<{
  line: Line
  people: { id: string; name: string }[]
  canWrite: boolean
}>()
const emit = defineEmits<{ change: [Schemas['ChangedLine']]; remove: [] }>()

const MARKS = { note: '', decision: 'Decided', action: 'Action' }
const KINDS = [
  { title: 'Note', value: 'note' },
  { title: 'Decision', value: 'decision' },
  { title: 'Action', value: 'action' },
]
const editing = ref(false)
const form = ref({ kind: line.kind, text: '', ownerIds: [] as string[], dueOn: '' })

function edit() {
  form.value = {
    kind: line.kind,
    text: line.text,
    ownerIds: line.action?.owners.map(owner => owner.id) ?? [],
    dueOn: line.action?.dueOn ?? '',
  }
  editing.value = true
}

function save() {
  const { kind, text, ownerIds, dueOn } = form.value
  emit('change', { kind, text, action: kind === 'action' ? { ownerIds, dueOn: dueOn || null } : null })
  editing.value = false
}
</script>

<template>
  <li class="line" :class="line.kind">
    <span class="mark">{{ MARKS[line.kind] }}</span>
    <form v-if="editing" class="form" novalidate @submit.prevent="save" @keydown.esc="editing = false">
      <v-text-field v-model="form.text" label="Line" autofocus />
      <div class="row">
        <v-select v-model="form.kind" :items="KINDS" label="Kind" class="kind" />
        <v-autocomplete
          v-if="form.kind === 'action'"
          v-model="form.ownerIds"
          :items="people.map(person => ({ title: person.name, value: person.id }))"
          label="Owners"
          multiple
          chips
          class="grow"
        />
        <DateField v-if="form.kind === 'action'" v-model="form.dueOn" label="Due" class="kind" />
      </div>
      <div class="row">
        <v-btn type="submit" size="small">Save</v-btn
        ><button type="button" class="quiet" @click="editing = false">Cancel</button
        ><button type="button" class="quiet alarm" @click="$emit('remove')">Remove the line</button>
      </div>
    </form>
    <p v-else>
      <span :class="{ closed: line.action && line.action.state !== 'open' }">{{ line.text }}</span>
      <template v-if="line.action"
        >{{ ' '
        }}<b>{{ line.action.owners.length ? list(line.action.owners.map(owner => owner.name)) : 'nobody yet' }}</b
        >{{ ' ' }}<span v-if="line.action.dueOn" class="soft">due {{ shortDay(line.action.dueOn) }}</span
        >{{ ' '
        }}<span v-if="line.action.state !== 'open'" class="fresh strong">{{ line.action.state }}</span></template
      >
      <button
        v-if="canWrite"
        type="button"
        class="quiet edit no-print"
        :aria-label="`Edit the line: ${line.text}`"
        @click="edit"
      >
        Edit
      </button>
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
p {
  overflow-wrap: anywhere;
  font-size: 1.0714rem;
}
.edit {
  opacity: 0;
  font-size: 0.8571rem;
  font-weight: 500;
  margin-left: 6px;
}
.line:hover .edit,
.edit:focus {
  opacity: 1;
}
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
.closed {
  text-decoration: line-through;
  color: var(--soft);
}
@media (hover: none) {
  .edit {
    opacity: 1;
  }
}
@media (max-width: 860px) {
  .edit {
    opacity: 1;
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
