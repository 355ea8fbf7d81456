<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Schemas, Topic } from '../api/client'
import { hasDraft, lineDraft } from '../composables/useDraft'
import type { useMinutes } from '../composables/useMinutes'
import LineList from './LineList.vue'
import MarkdownText from './MarkdownText.vue'
import SheetBlock from './SheetBlock.vue'
import TopicForm from './TopicForm.vue'

/** One topic of the sheet: its head, its lines, and in the slot the place for the next one. */
const { topic, number, papers, people, minutes, here, canWrite, canOrder, canChange, mayClose, dim } = defineProps<{
  topic: Topic
  number: string
  papers: Schemas['Paper'][]
  people: { id: string; name: string }[]
  minutes: ReturnType<typeof useMinutes>
  here: boolean
  canWrite: boolean
  canOrder: boolean
  canChange: boolean
  mayClose: boolean
  dim: boolean
}>()
const emit = defineEmits<{
  take: []
  move: [by: number]
  drop: [id: string]
  carry: [onto: string]
  change: [Schemas['ChangedTopic']]
  remove: []
}>()

const halfLine = computed(() => canWrite && !here && hasDraft(lineDraft(minutes.shown.value!.id, topic.id)))

const PURPOSES = { information: 'for information', discussion: 'for discussion', decision: 'for decision' }
const editing = ref(false)
const form = useTemplateRef<InstanceType<typeof TopicForm>>('form')
const edit = useTemplateRef<HTMLButtonElement>('edit')
// The hand goes into the form, and back to where it was opened.
watch(editing, async now => {
  await nextTick()
  if (now) form.value?.focus()
  else edit.value?.focus()
})
/** A topic that is moved takes the hand along. */
async function move(by: number, event: KeyboardEvent) {
  const handle = event.target as HTMLElement
  emit('move', by)
  await nextTick()
  handle.focus()
}
const over = ref(false)

function dropped(event: DragEvent) {
  over.value = false
  const id = event.dataTransfer?.getData('text/topic')
  if (id) emit('drop', id)
}
// A finger carries a topic by its handle, as a mouse drags it.
function carried(event: PointerEvent) {
  if (event.pointerType === 'mouse') return
  const onto = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-topic]')
    ?.dataset.topic
  if (onto && onto !== topic.id) emit('carry', onto)
}
</script>

<template>
  <SheetBlock
    :data-topic="topic.id"
    class="topic"
    :class="{ dim, over, part: topic.sub }"
    :here="here"
    :aria-label="`Topic ${number}: ${topic.title}`"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <template #number>
      <button
        v-if="canOrder"
        type="button"
        class="handle no-print"
        draggable="true"
        :aria-label="`Move ${topic.title}: arrow up or down`"
        @dragstart="($event as DragEvent).dataTransfer!.setData('text/topic', topic.id)"
        @pointerdown="($event.target as Element).setPointerCapture?.($event.pointerId)"
        @pointerup="carried"
        @keydown.up.prevent="move(-1, $event)"
        @keydown.down.prevent="move(1, $event)"
      >
        <svg width="10" height="14" viewBox="0 0 10 14" aria-hidden="true">
          <path d="M2 3h6M2 7h6M2 11h6" stroke="currentColor" stroke-width="1.6" stroke-linecap="round" />
        </svg></button
      >{{ number }}
    </template>
    <TopicForm
      v-if="editing"
      ref="form"
      :topic="topic"
      :people="people"
      :may-close="mayClose"
      @keep="
        body => {
          emit('change', body)
          editing = false
        }
      "
      @leave="editing = false"
      @remove="emit('remove')"
    />
    <header v-else class="head" :class="{ here }">
      <h2>
        <button v-if="canWrite && !here" type="button" class="title" @click="emit('take')">
          {{ topic.title }}</button><template v-else>{{ topic.title }}</template>
      </h2>
      <p class="soft small">
        <template v-if="topic.closed && topic.broughtById"><span class="strong">closed</span> · </template
        ><template v-if="topic.presenter">{{ topic.presenter.name }} · </template
        ><template v-if="topic.broughtById">{{ PURPOSES[topic.purpose] }} · </template>
        {{ topic.inWriting ? 'in writing, taken as read' : `${topic.lengthMin} min`
        }}<template v-if="topic.carried"> · <span class="carried strong">came over</span></template
        ><template v-if="topic.putOff">
          ·
          <span class="carried strong">{{
            topic.standing ? 'not taken' : 'put off to the next meeting'
          }}</span></template
        >
        <button
          v-if="canChange"
          ref="edit"
          type="button"
          class="quiet no-print"
          :aria-label="`Edit the topic ${topic.title}`"
          @click="editing = true"
        >
          Edit
        </button>
        <slot name="deeds" />
      </p>
    </header>
    <p v-if="halfLine" class="small carried strong no-print">
      A half line waits here. <button type="button" class="quiet" @click="emit('take')">Go on with it</button>
    </p>
    <MarkdownText v-if="topic.text && !editing" :text="topic.text" class="about" />
    <p v-if="papers.length" class="small">
      <a v-for="paper in papers" :key="paper.id" class="paper" :href="`/api/papers/${paper.id}`" download>{{
        paper.name
      }}</a>
    </p>
    <LineList :lines="topic.lines" :minutes="minutes" :people="people" :can-write="canWrite" />
    <slot />
  </SheetBlock>
</template>

<style scoped>
.topic.over {
  box-shadow: 0 -2px 0 var(--pine);
}
.topic.dim .title,
.topic.dim h2 {
  color: var(--soft);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
/* The box one types in slides beneath the title while little of the topic is in view. */
.head.here {
  position: relative;
  z-index: 2;
  background: color-mix(in srgb, var(--pine-pale) 45%, var(--sheet));
}
.topic.part {
  margin-left: 22px;
}
.about {
  margin: 4px 0;
  padding-left: 10px;
  border-left: 2px solid var(--line);
}
.paper {
  margin-right: 14px;
}
.handle {
  touch-action: none;
  border: 0;
  background: none;
  color: var(--soft);
  cursor: grab;
  padding: 2px;
  line-height: 0;
  margin-top: 2px;
}
</style>
