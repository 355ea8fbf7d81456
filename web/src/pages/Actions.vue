<script setup lang="ts">
import { computed, ref } from 'vue'
import ActionEdit from '../components/ActionEdit.vue'
import ActionRow from '../components/ActionRow.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useActionList, useActionMoves } from '../composables/useActions'
import { useSession } from '../composables/useSession'
import type { Action } from '../api/client'
import { count, wallNow } from '../time'

const { person } = useSession()
const whose = ref<'mine' | 'all'>('mine')
const state = ref<'open' | 'closed'>('open')
const { actions, total, error, more, hasMore } = useActionList(whose, state)
const { move } = useActionMoves()
const editing = ref<Action | null>(null)
const today = computed(() => wallNow(person.value?.timeZone ?? 'UTC').slice(0, 10))
</script>

<template>
  <div class="desk">
    <h1>Actions</h1>
    <div class="row choose" role="group" aria-label="Which actions">
      <button
        v-for="choice in ['mine', 'all'] as const"
        :key="choice"
        class="quiet"
        :class="{ on: whose === choice }"
        :aria-pressed="whose === choice"
        @click="whose = choice"
      >
        {{ choice === 'mine' ? 'Mine' : 'All of my series' }}
      </button>
      <span class="soft">·</span>
      <button
        v-for="choice in ['open', 'closed'] as const"
        :key="choice"
        class="quiet"
        :class="{ on: state === choice }"
        :aria-pressed="state === choice"
        @click="state = choice"
      >
        {{ choice === 'open' ? 'Open' : 'Closed' }}
      </button>
    </div>
    <ProblemNote :error="error" />
    <section v-if="actions" class="sheet" aria-live="polite">
      <p class="eyebrow">{{ count(total, 'action') }}, {{ state === 'open' ? 'soonest due first' : 'latest first' }}</p>
      <ul v-if="actions.length" class="ruled">
        <ActionRow
          v-for="action in actions"
          :key="action.id"
          :action="action"
          :today="today"
          :show-owners="whose === 'all'"
          @tick="move({ action, state: 'done' })"
          @untick="move({ action, state: 'open' })"
          @change="editing = action"
        />
      </ul>
      <p v-else class="soft empty">
        {{
          state === 'open' ? 'Nothing is open. Actions come from the lines of a sheet.' : 'Nothing has been closed yet.'
        }}
      </p>
      <button v-if="hasMore" class="quiet" @click="more()">Show more</button>
    </section>
    <ActionEdit v-model="editing" />
  </div>
</template>

<style scoped>
.choose {
  margin: 10px 0 16px;
}
.on {
  text-decoration: underline;
  text-underline-offset: 5px;
  text-decoration-thickness: 2px;
  color: var(--ink);
}
.empty {
  padding: 10px 0;
}
</style>
