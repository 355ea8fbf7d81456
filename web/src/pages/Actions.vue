<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import ActionBulk from '../components/ActionBulk.vue'
import ActionEdit from '../components/ActionEdit.vue'
import ActionFilters from '../components/ActionFilters.vue'
import ActionImport from '../components/ActionImport.vue'
import ActionRow from '../components/ActionRow.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useActionList, useActionMoves, type ActionFilter } from '../composables/useActions'
import { useSession } from '../composables/useSession'
import type { Action } from '../api/client'
import { count, daysFrom, wallNow } from '../time'

/** All actions one may see, in one list; what it is narrowed to stands in the address. */
const { person } = useSession()
const route = useRoute()
const router = useRouter()
const word = (name: string) => {
  const given = route.query[name]
  return typeof given === 'string' && given ? given : undefined
}
const filter = computed<ActionFilter>({
  get: (): ActionFilter => ({
    whose: word('whose') ?? 'mine',
    state: word('state') === 'closed' ? 'closed' : 'open',
    seriesId: word('seriesId'),
    only: word('only') as ActionFilter['only'],
    group: (word('group') ?? 'due') as ActionFilter['group'],
  }),
  set: wish => void router.replace({ query: { ...wish } }),
})
const { actions, total, series, people, error, more, hasMore } = useActionList(filter)
const { move } = useActionMoves()
const editing = ref<Action | null>(null)
const importing = ref(false)
const chosen = ref<Action[]>([])
watch(filter, () => (chosen.value = []))
const today = computed(() => wallNow(person.value?.timeZone ?? 'UTC').slice(0, 10))
const address = (kind: 'csv' | 'ics') => {
  const query = new URLSearchParams(Object.entries(filter.value).filter(([, value]) => value) as [string, string][])
  return `/api/actions.${kind}?${query}`
}

/** Under which heading an action stands. */
function heading(action: Action) {
  if (filter.value.group === 'series') return action.seriesTitle
  if (filter.value.group === 'owner') return action.owners[0]?.name ?? 'Nobody yet'
  if (filter.value.state === 'closed') return ''
  if (!action.dueOn) return 'No date'
  const days = daysFrom(today.value, action.dueOn)
  return days < 0 ? 'Overdue' : days <= 7 ? 'Within a week' : 'Later'
}
const groups = computed(() => {
  const found: { title: string; actions: Action[] }[] = []
  for (const action of actions.value ?? []) {
    const title = heading(action)
    if (found.at(-1)?.title === title) found.at(-1)!.actions.push(action)
    else found.push({ title, actions: [action] })
  }
  return found
})
function choose(action: Action, on: boolean) {
  chosen.value = on ? [...chosen.value, action] : chosen.value.filter(one => one.id !== action.id)
}
</script>

<template>
  <div class="desk">
    <div class="row spread">
      <h1>Actions</h1>
      <div class="row small out">
        <router-link to="/strands">As strands</router-link>
        <button type="button" class="quiet" @click="importing = true">Import actions…</button>
        <a :href="address('csv')" download>As CSV</a>
        <a :href="address('ics')" download>As to-dos</a>
      </div>
    </div>
    <ActionFilters v-model="filter" :series="series" :people="people" />
    <ProblemNote :error="error" />
    <section v-if="actions" class="sheet" aria-live="polite">
      <p class="eyebrow">{{ count(total, 'action') }}</p>
      <template v-for="group in groups" :key="group.title">
        <h2 v-if="group.title" class="group">{{ group.title }}</h2>
        <ul class="ruled">
          <ActionRow
            v-for="action in group.actions"
            :key="action.id"
            :action="action"
            :today="today"
            :series="series"
            :show-owners="filter.whose !== 'mine'"
            :chosen="chosen.some(one => one.id === action.id)"
            can-choose
            @choose="on => choose(action, on)"
            @tick="move({ action, state: 'done' })"
            @untick="move({ action, state: 'open' })"
            @change="editing = action"
          />
        </ul>
      </template>
      <p v-if="actions.length === 0" class="soft empty">
        {{
          filter.state === 'closed'
            ? 'Nothing has been closed yet.'
            : filter.only || filter.seriesId
              ? 'Nothing is open that fits.'
              : 'Nothing is open. Actions come from the lines of a sheet.'
        }}
      </p>
      <button v-if="hasMore" class="quiet" @click="more()">Show more</button>
      <ActionBulk v-model="chosen" />
    </section>
    <ActionEdit v-model="editing" />
    <ActionImport v-model="importing" :series="series" />
  </div>
</template>

<style scoped>
.out {
  gap: 16px;
}
.group {
  font-size: 1rem;
  margin: 14px 0 2px;
}
.empty {
  padding: 10px 0;
}
</style>
