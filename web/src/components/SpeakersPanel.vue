<script setup lang="ts">
import { computed } from 'vue'
import type { Sheet } from '../api/client'
import { useSpeakers } from '../composables/useSpeakers'

/** Who wants to speak, in the order in which they said so. */
const { sheet, me } = defineProps<{ sheet: Sheet; me: string }>()
const { set } = useSpeakers(() => sheet.id)
const waiting = computed(() => new Set(sheet.speakers.map(one => one.id)))
const others = computed(() => sheet.people.filter(person => !waiting.value.has(person.id)))
const mine = computed(() => sheet.people.some(person => person.id === me))
function add(event: Event) {
  const field = event.target as HTMLSelectElement
  if (field.value) set({ personId: field.value, wants: true })
  field.value = ''
}
</script>

<template>
  <section class="speakers" aria-labelledby="speakers">
    <h2 id="speakers" class="eyebrow">
      Wants to speak{{ sheet.speakers.length ? ` · ${sheet.speakers.length}` : '' }}
    </h2>
    <ol>
      <li v-for="speaker in sheet.speakers" :key="speaker.id" class="row spread">
        <span>{{ speaker.name }}</span>
        <button
          v-if="sheet.may.hold || speaker.id === me"
          type="button"
          class="quiet small"
          :aria-label="`Has spoken: ${speaker.name}`"
          @click="set({ personId: speaker.id, wants: false })"
        >
          Has spoken
        </button>
      </li>
    </ol>
    <select v-if="sheet.may.hold" class="in-line" aria-label="Wants to speak" @change="add">
      <option value="">Add somebody</option>
      <option v-for="person in others" :key="person.id" :value="person.id">{{ person.name }}</option>
    </select>
    <button
      v-else-if="mine && !waiting.has(me)"
      type="button"
      class="quiet"
      @click="set({ personId: me, wants: true })"
    >
      I want to speak
    </button>
  </section>
</template>

<style scoped>
.speakers {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
ol {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
</style>
