<script setup lang="ts">
import type { Sheet } from '../api/client'
import { useFold } from '../composables/useFold'
import { carriedWords, shortDay } from '../time'

/** What a sheet begins with: actions of earlier meetings, how often each was carried, and what became of it here. */
const { actions } = defineProps<{ actions: Sheet['leftOver'] }>()
const smallFirst = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)
const { folded, rest, unfold } = useFold(() => actions.length)
</script>

<template>
  <ul class="left">
    <li v-for="(action, i) in actions" :key="action.id" :class="{ folded: folded(i) }">
      <span :class="{ over: action.state !== 'open' }">{{ action.text }}</span>{{ ' ' }}
      <b v-if="action.review?.verdict === 'done' || (!action.review && action.state === 'done')" class="fresh">done</b>
      <b v-else-if="action.state === 'handed_over'" class="soft">{{ smallFirst(action.reason ?? '') }}</b>
      <b v-else-if="action.state !== 'open'" class="soft"
        >dropped<template v-if="action.reason">: {{ action.reason }}</template></b
      >
      <template v-else
        ><span class="small strong" :class="action.stuck ? 'alarm' : action.carried ? 'carried' : 'fresh'">{{
          carriedWords(action.carried)
        }}</span
        >{{ ' '
        }}<span class="soft small"
          >· {{ action.owners.map(owner => owner.name).join(', ') || 'nobody yet'
          }}{{ action.dueOn ? ` · due ${shortDay(action.dueOn)}` : '' }}</span
        ></template
      >
    </li>
  </ul>
  <button v-if="rest" type="button" class="quiet small no-print" @click="unfold">Show {{ rest }} more</button>
</template>

<style scoped>
.left li {
  padding: 3px 0;
  font-size: 1.0714rem;
}
.over {
  text-decoration: line-through;
  color: var(--soft);
}
</style>
