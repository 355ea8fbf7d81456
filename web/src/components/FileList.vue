<script setup lang="ts">
import { ref } from 'vue'
import { v7 as newKey } from 'uuid'
import { removePaper } from '../composables/usePapers'
import type { Schemas } from '../api/client'
import { useRemoval } from '../composables/useRemoval'

/** Files: chosen, dragged or pasted, several at once, with how far each has come. */
type Paper = Schemas['Paper']
const {
  files,
  topics = [],
  mayBring,
  bring,
} = defineProps<{
  label: string
  files: Paper[]
  topics?: { id: string; title: string }[]
  mayBring: boolean
  mayRemove: (file: Paper) => boolean
  bring: (id: string, file: File, told: (share: number) => void) => Promise<void>
}>()
const emit = defineEmits<{ changed: [] }>()
const coming = ref<{ name: string; share: number; fault: string; retry: () => void }[]>([])
const over = ref(false)
const titleOf = (id: string | null | undefined) => topics.find(topic => topic.id === id)?.title

function bringAll(picked: Iterable<File>) {
  for (const file of picked) one(file, newKey())
}
function bringPicked({ target }: Event) {
  const field = target as HTMLInputElement
  bringAll(field.files ?? [])
  field.value = ''
}
function bringDropped({ dataTransfer }: DragEvent) {
  over.value = false
  if (mayBring) bringAll(dataTransfer?.files ?? [])
}
async function one(file: File, id: string) {
  coming.value.push({
    name: file.name,
    share: 0,
    fault: '',
    retry: () => {
      coming.value = coming.value.filter(other => other.name !== file.name)
      one(file, id)
    },
  })
  const entry = coming.value.at(-1)!
  try {
    await bring(id, file, share => {
      entry.share = share
    })
    coming.value = coming.value.filter(other => other !== entry)
    emit('changed')
  } catch (fault) {
    entry.fault = (fault as Error).message
  }
}
const { remove, isThere } = useRemoval()
const drop = (file: Paper) =>
  remove(file.id, `${file.name} is removed.`, () => removePaper(file.id).then(() => emit('changed')))
const size = (bytes: number) =>
  bytes < 100_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
</script>

<template>
  <div
    :class="{ over }"
    @dragover.prevent="over = mayBring"
    @dragleave="over = false"
    @drop.prevent="bringDropped"
    @paste="mayBring && bringAll($event.clipboardData?.files ?? [])"
  >
    <ul>
      <li v-for="paper in files.filter(isThere)" :key="paper.id" class="row spread">
        <span
          ><a :href="`/api/papers/${paper.id}`" download>{{ paper.name }}</a>
          <span v-if="titleOf(paper.topicId)" class="small soft"> for {{ titleOf(paper.topicId) }}</span></span
        >
        <span class="small soft"
          >{{ size(paper.sizeBytes) }}
          <button
            v-if="mayBring && mayRemove(paper)"
            type="button"
            class="quiet small"
            :aria-label="`Remove: ${paper.name}`"
            @click="drop(paper)"
          >
            Remove
          </button></span
        >
      </li>
      <li v-for="entry in coming" :key="entry.name" role="status">
        <span class="small">{{ entry.name }}</span>
        <v-progress-linear
          v-if="!entry.fault"
          :model-value="100 * entry.share"
          color="primary"
          :aria-label="`Bringing ${entry.name}`"
        />
        <p v-else class="small alarm">
          {{ entry.fault }} <button type="button" class="quiet small" @click="entry.retry()">Try again</button
          ><button
            type="button"
            class="quiet small"
            :aria-label="`Dismiss: ${entry.name}`"
            @click="coming = coming.filter(other => other !== entry)"
          >
            Dismiss
          </button>
        </p>
      </li>
    </ul>
    <slot />
    <label v-if="mayBring" class="quiet small add"
      >{{ label }}<span class="soft"> or drag them here</span
      ><input type="file" multiple :aria-label="label" @change="bringPicked"
    /></label>
  </div>
</template>

<style scoped>
.over {
  outline: 2px dashed var(--pine);
  outline-offset: 4px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 3px 0;
  overflow-wrap: anywhere;
}
.add {
  position: relative;
  display: inline-block;
  padding-left: 0;
}
.add input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.add:focus-within {
  outline: 2px solid var(--alarm);
}
</style>
