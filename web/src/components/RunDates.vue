<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { clock, count, longDay, shortDay } from '../time'

/** A run read back: as a sentence, and date by date. */
const { preview } = defineProps<{ preview: Schemas['RunPreview'] }>()
const shown = computed(() => {
  const { dates, count: all, endless, listedUntil } = preview
  if (endless) return `${count(dates.length, 'date')} until ${longDay(listedUntil!)}, and on from there`
  return all && all > dates.length ? `The first ${dates.length} of ${count(all, 'date')}` : count(dates.length, 'date')
})
const MOST_NAMED = 8
const moved = computed(() => preview.dates.filter(date => date.note && !date.note.startsWith('instead of')).length)
</script>

<template>
  <div class="stack">
    <p class="sentence" role="status">{{ preview.sentence }}.</p>
    <p class="soft small">
      {{ shown
      }}<template v-if="moved"
        >, {{ count(moved, 'of them').replace('of thems', 'of them') }} on a day the clocks change</template
      >.
    </p>
    <ul v-if="preview.leftOut.length" class="small carried" aria-label="On public holidays">
      <li v-for="one in preview.leftOut.slice(0, MOST_NAMED)" :key="one.on">
        {{ shortDay(one.on) }} {{ one.on.slice(0, 4) }}, {{ one.name }}:
        {{ one.instead ? `${shortDay(one.instead)} instead` : 'left out' }}
      </li>
      <li v-if="preview.leftOut.length > MOST_NAMED">{{ preview.leftOut.length - MOST_NAMED }} more</li>
    </ul>
    <ol class="dates" tabindex="0" aria-label="All dates">
      <li v-for="(date, i) in preview.dates" :key="date.startsAt" :class="{ marked: date.note }">
        <span class="soft small nr">{{ i + 1 }}</span><span
          >{{ shortDay(date.localStart) }} {{ date.localStart.slice(0, 4) }}, {{ clock(date.localStart) }}</span
        >
        <span v-if="date.note" class="small carried">{{ date.note }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.sentence {
  font:
    600 1.2143rem/1.35 'Bricolage Grotesque Variable',
    sans-serif;
}
.dates {
  max-height: 380px;
  overflow: auto;
  border-top: 1px solid var(--line);
}
.dates li {
  display: grid;
  grid-template-columns: 30px auto;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.dates li .carried {
  grid-column: 2;
}
.nr {
  text-align: right;
  padding-right: 10px;
}
</style>
