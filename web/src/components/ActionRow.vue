<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Action, Schemas } from '../api/client'
import { carriedWords, daysFrom, list, shortDay } from '../time'
import ActionDetail from './ActionDetail.vue'

/** One action with its tick: how old it is, whose, by when, how it goes. */
const {
  action,
  today,
  showOwners = false,
  canChoose = false,
  series = [],
} = defineProps<{
  action: Action
  today: string
  showOwners?: boolean
  canChoose?: boolean
  chosen?: boolean
  series?: Schemas['Named'][]
}>()
defineEmits<{ tick: []; untick: []; change: []; choose: [on: boolean] }>()

const opened = ref(false)

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
        <template v-if="action.handedFrom"> · from {{ action.handedFrom.name }}</template>
        <template v-if="action.state === 'dropped'"> · dropped: {{ action.reason }}</template>
        <template v-if="action.state === 'handed_over'"> · {{ action.reason }}</template>
        <button
          v-if="action.mayChange && action.state === 'open'"
          type="button"
          class="quiet"
          :aria-label="`Edit: ${action.text}`"
          @click="$emit('change')"
        >
          Edit
        </button>
        <button
          v-if="canChoose"
          type="button"
          class="quiet"
          :aria-expanded="opened"
          :aria-label="`${opened ? 'Less' : 'More'}: ${action.text}`"
          @click="opened = !opened"
        >
          {{ opened ? 'Less' : 'More' }}
        </button>
      </p>
      <p v-if="action.note" class="small note">
        “{{ [action.note.delayed ? 'will not be done by then' : '', action.note.text].filter(Boolean).join(': ') }}”
        <span class="soft">{{ action.note.by }}, {{ shortDay(action.note.on) }}</span>
      </p>
    </div>
    <span class="age small" :class="tone"
      >{{ age }}<template v-if="action.stuck">, stuck</template>
      <label v-if="canChoose && action.mayChange && action.state === 'open'" class="choose">
        <input
          type="checkbox"
          :checked="chosen"
          :aria-label="`Choose: ${action.text}`"
          @change="$emit('choose', ($event.target as HTMLInputElement).checked)"
        />
        <span class="soft">choose</span>
      </label>
    </span>
    <ActionDetail v-if="opened" :action="action" :series="series" />
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
.note {
  overflow-wrap: anywhere;
}
.choose {
  display: flex;
  gap: 6px;
  justify-content: flex-end;
  align-items: center;
  font-weight: 400;
  cursor: pointer;
}
.choose input {
  width: 15px;
  height: 15px;
}
.age {
  text-align: right;
  font-weight: 650;
  white-space: nowrap;
  padding-top: 2px;
}
</style>
