<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import type { useMinutes } from '../composables/useMinutes'
import { positionOf, type ShownLine } from '../deeds'
import { useExtras } from '../composables/useExtras'
import { useNotice } from '../composables/useNotice'
import { useCalled } from '../composables/useCalled'
import LineRow from './LineRow.vue'
import MotionForm from './MotionForm.vue'

/** The lines under one topic, and what is done to them. */
const { lines, minutes, people, canWrite } = defineProps<{
  lines: ShownLine[]
  minutes: ReturnType<typeof useMinutes>
  people: { id: string; name: string }[]
  canWrite: boolean
}>()

const voting = ref<ShownLine | null>(null)
const open = computed({
  get: () => voting.value !== null,
  set: shown => {
    if (!shown) voting.value = null
  },
})
const belowQuorum = computed(() => new Set(minutes.shown.value?.belowQuorum))

// Saved after somebody removed it: as a new line in its place.
function change(line: ShownLine, body: Schemas['ChangedLine'], version: number) {
  if (line.gone) {
    const { afterId } = positionOf(minutes.shown.value!, line)
    minutes.add(line.topicId, body.text, { kind: body.kind, action: body.action, afterId })
  } else minutes.change(line, body, version)
}

function drop(line: ShownLine, ontoId: string) {
  const onto = document.querySelector<HTMLElement>(`[data-line="${ontoId}"]`)?.closest<HTMLElement>('[data-topic]')
  minutes.put(line, { topicId: onto?.dataset.topic ?? null, afterId: ontoId, indent: line.indent === 1 ? 1 : 0 })
}
const { call } = useCalled()
const { ask } = useExtras(() => minutes.shown.value!.id)
const { complain } = useNotice()
/** Somebody who was named comes in, and the line is read anew. */
async function askIn(line: ShownLine, personId: string) {
  try {
    await ask({ personId })
    minutes.change(line, { text: line.typed ?? line.text })
  } catch (fault) {
    complain(fault as Error)
  }
}
</script>

<template>
  <ul class="lines">
    <LineRow
      v-for="line in lines"
      :key="line.id"
      :line="line"
      :people="people"
      :can-write="canWrite"
      :below-quorum="belowQuorum.has(line.id)"
      :may-ask="!!minutes.shown.value?.may.nameDeputy"
      @change="(body, version) => change(line, body, version)"
      @remove="minutes.remove(line)"
      @move="by => minutes.move(line, by)"
      @drop="onto => drop(line, onto)"
      @indent="to => minutes.indent(line, to)"
      @settle="how => minutes.settle(line.entry!, how)"
      @try-again="minutes.tryAgain(line.entry!)"
      @discard="minutes.discard(line.entry!)"
      @hold="editing => minutes.hold(line, editing)"
      @split="(before, after) => minutes.split(line, before, after)"
      @ask="personId => askIn(line, personId)"
      @called="(word, personId) => call({ seriesId: minutes.shown.value!.seriesId, word, personId })"
      @apart="parts => minutes.apart(line, parts)"
      @join="text => minutes.join(line, text)"
      @one-each="minutes.oneEach(line)"
      @motion="voting = line"
    />
  </ul>
  <MotionForm
    v-if="voting && minutes.shown.value"
    v-model="open"
    :line="voting"
    :people="minutes.shown.value.people"
    :meeting-id="minutes.shown.value.id"
    :vote-rule="minutes.shown.value.voteRule"
  />
</template>

<style scoped>
.lines {
  margin-left: -70px;
}
@media (max-width: 860px) {
  .lines {
    margin-left: 0;
  }
}
</style>
