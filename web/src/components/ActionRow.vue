<script setup lang="ts">
import { computed } from 'vue'
import type { Action } from '../api/client'
import { carriedWords, daysFrom, list, shortDay } from '../time'

/** One action with its tick: how old it is, whose, by when. */
const { action, today, showOwners = false } = defineProps<{ action: Action; today: string; showOwners?: boolean }>()
defineEmits<{ tick: []; untick: []; change: [] }>()

const age = computed(() => carriedWords(action.carried))
const tone = computed(() => (action.stuck ? 'alarm' : action.carried > 0 ? 'carried' : 'fresh'))
const late = computed(() => (action.dueOn && action.state === 'open' ? daysFrom(action.dueOn, today) : 0))
</script>

<template>
  <li class="action" :class="tone">
    <input
      type="checkbox"
      :disabled="!action.mayChange"
      :checked="action.state !== 'open'"
      :aria-label="action.state === 'open' ? `Done: ${action.text}` : `Open again: ${action.text}`"
      @change="action.state === 'open' ? $emit('tick') : $emit('untick')"
    />
    <div>
      <p class="text" :class="{ closed: action.state !== 'open' }">{{ action.text }}</p>
      <p class="soft small">
        <span v-if="showOwners"
          >{{ action.owners.length ? list(action.owners.map(owner => owner.name)) : 'nobody yet' }} ·
        </span>
        <router-link :to="`/series/${action.seriesId}`">{{ action.seriesTitle }}</router-link>
        · since {{ shortDay(action.raisedOn) }}
        <template v-if="action.dueOn">
          ·
          <span :class="{ alarm: late > 0, strong: late > 0 }"
            >{{ late > 0 ? 'was due' : 'due' }} {{ shortDay(action.dueOn) }}</span
          ></template
        >
        <template v-if="action.state === 'dropped'"> · dropped: {{ action.reason }}</template>
        <button
          v-if="action.mayChange && action.state === 'open'"
          type="button"
          class="quiet"
          :aria-label="`Edit: ${action.text}`"
          @click="$emit('change')"
        >
          Edit
        </button>
      </p>
    </div>
    <span class="age small" :class="tone">{{ age }}<template v-if="action.stuck">, stuck</template></span>
  </li>
</template>

<style scoped>
.action {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 10px;
  align-items: start;
}
input {
  width: 17px;
  height: 17px;
  margin: 2px 0 0;
  accent-color: var(--pine);
  cursor: pointer;
}
.text {
  font-weight: 550;
  color: var(--ink);
  overflow-wrap: anywhere;
}
.text.closed {
  text-decoration: line-through;
  color: var(--soft);
  font-weight: 400;
}
.age {
  font-weight: 650;
  white-space: nowrap;
  padding-top: 2px;
}
</style>
