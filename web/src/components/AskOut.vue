<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { useDraft } from '../composables/useDraft'
import { list } from '../time'

/** At a closed topic, those who do not read it are asked to leave, and come back after it: marked together. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const emit = defineEmits<{ mark: [Schemas['AttendanceOfAll']['people']] }>()

const HERE = ['present', 'on_call', 'late']
/** Who was asked out, so that they and nobody else come back. */
const { draft: out } = useDraft<string[]>(`asked-out-${sheet.id}`, () => [])
const closed = computed(() => sheet.topics.some(topic => topic.closed && topic.id === sheet.presentTopicId))
const toLeave = computed(() =>
  closed.value
    ? sheet.people.filter(person => person.readsClosed === false && HERE.includes(person.attendance ?? ''))
    : [],
)
const toCome = computed(() =>
  closed.value ? [] : sheet.people.filter(person => out.value.includes(person.id) && person.attendance === 'left'),
)
const names = (people: Sheet['people']) => list(people.map(person => person.name))

function leave() {
  emit(
    'mark',
    toLeave.value.map(person => ({ personId: person.id, state: 'left' as const })),
  )
  out.value = [...out.value, ...toLeave.value.map(person => person.id)]
}
function comeBack() {
  emit(
    'mark',
    toCome.value.map(person => ({ personId: person.id, state: 'present' as const })),
  )
  out.value = []
}
</script>

<template>
  <button v-if="toLeave.length" type="button" class="quiet" data-ask-out @click="leave">
    Closed topic: {{ names(toLeave) }} {{ toLeave.length === 1 ? 'leaves' : 'leave' }}
  </button>
  <button v-else-if="toCome.length" type="button" class="quiet" data-ask-out @click="comeBack">
    Back in: {{ names(toCome) }}
  </button>
</template>
