<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas, Topic } from '../api/client'
import { useDraft } from '../composables/useDraft'

/** A topic being brought or changed: title, minutes, who brings it, what for, and what is said about it beforehand. */
const {
  topic = undefined,
  people,
  meetingId = '',
  mayClose,
} = defineProps<{ topic?: Topic; people: { id: string; name: string }[]; meetingId?: string; mayClose: boolean }>()
const emit = defineEmits<{ keep: [Schemas['ChangedTopic']]; leave: []; remove: [] }>()

const PURPOSES = [
  { title: 'for information', value: 'information' },
  { title: 'for discussion', value: 'discussion' },
  { title: 'for decision', value: 'decision' },
]
interface Wish {
  title: string
  lengthMin: number | ''
  presenterId: string | null
  purpose: Schemas['TopicPurpose']
  text: string
  sub: boolean
  inWriting: boolean
  closed: boolean
}
const empty = (): Wish => ({
  title: topic?.title ?? '',
  lengthMin: topic?.lengthMin ?? 10,
  presenterId: topic?.presenter?.id ?? null,
  purpose: topic?.purpose ?? 'discussion',
  text: topic?.text ?? '',
  sub: topic?.sub ?? false,
  inWriting: topic?.inWriting ?? false,
  closed: topic?.closed ?? false,
})
const { draft: form, forget } = useDraft(topic ? `topic-${topic.id}` : `new-topic-${meetingId}`, empty)
const more = ref(topic !== undefined || form.value.text !== '')
const tried = ref(false)
const titleFault = computed(() => (tried.value && !form.value.title.trim() ? 'Give the topic a title.' : undefined))
const title = ref<{ focus: () => void }>()

function keep() {
  tried.value = true
  if (!form.value.title.trim()) return
  emit('keep', { ...form.value, lengthMin: Math.min(Math.max(Number(form.value.lengthMin) || 0, 0), 480) })
  forget()
  if (topic) return
  tried.value = false
  title.value?.focus()
}
const text = ref<{ focus: () => void }>()
async function addText() {
  more.value = true
  await nextTick()
  text.value?.focus()
}
function leave() {
  if (topic) forget()
  emit('leave')
}
defineExpose({ focus: () => title.value?.focus() })
</script>

<template>
  <form class="form no-print" novalidate @submit.prevent="keep" @keydown.esc="leave">
    <v-text-field
      ref="title"
      v-model="form.title"
      class="wide"
      :label="topic ? 'Topic' : 'Add a topic'"
      :error-messages="titleFault"
    />
    <v-text-field v-model.number="form.lengthMin" class="min" type="number" min="0" max="480" label="Minutes" />
    <v-select
      v-model="form.presenterId"
      class="who"
      :items="[
        { title: 'nobody in particular', value: null },
        ...people.map(person => ({ title: person.name, value: person.id })),
      ]"
      label="Brought by"
    />
    <v-select v-model="form.purpose" class="who" :items="PURPOSES" label="What for" />
    <template v-if="more">
      <v-textarea
        ref="text"
        v-model="form.text"
        class="wide"
        label="Text beneath"
        rows="2"
        maxlength="10000"
        hint="**bold**, *slanted*, - a list, [a link](https://…)"
      />
      <v-checkbox v-model="form.sub" label="A part of the topic above" />
      <v-checkbox v-model="form.inWriting" label="In writing: taken as read" />
      <v-checkbox
        v-if="mayClose"
        v-model="form.closed"
        label="Closed: for who must come, the keeper, the chair and deputies alone"
      />
      <p v-if="form.closed" class="soft small wide">
        Others read “Closed topic” in its place, and nothing of what is written under it.
      </p>
    </template>
    <button v-else type="button" class="quiet" @click="addText">Add text …</button>
    <v-btn type="submit" :variant="topic ? 'flat' : 'outlined'">{{ topic ? 'Save' : 'Add' }}</v-btn>
    <template v-if="topic"
      ><button type="button" class="quiet" @click="leave">Cancel</button
      ><button type="button" class="quiet alarm" @click="$emit('remove')">Remove the topic</button></template
    >
  </form>
</template>

<style scoped>
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: flex-start;
  padding: 4px 0;
}
.wide {
  flex: 1 1 100%;
}
.min {
  flex: 0 0 92px;
}
.who {
  flex: 1 1 204px;
}
.quiet {
  padding-top: 9px;
}
</style>
