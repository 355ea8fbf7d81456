<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, dataOf } from '../api/client'
import { plain } from '../plain'
import { shortDay } from '../time'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ help: [] }>()

const router = useRouter()
const typed = ref('')
const chosen = ref(0)
const FIXED = [
  { title: 'Desk', hint: 'go', to: '/' },
  { title: 'Series', hint: 'go', to: '/series' },
  { title: 'Actions', hint: 'go', to: '/actions' },
  { title: 'Decisions', hint: 'go', to: '/decisions' },
  { title: 'What carries over', hint: 'go', to: '/strands' },
  { title: 'Search', hint: 'go', to: '/search' },
  { title: 'People & places', hint: 'go', to: '/people' },
  { title: 'Find a common time', hint: 'do', to: '/common-time' },
  { title: 'Groups', hint: 'go', to: '/people?show=groups' },
  { title: 'Places', hint: 'go', to: '/people?show=places' },
  { title: 'Ask for times', hint: 'do', to: '/asking/new' },
  { title: 'Times asked for', hint: 'go', to: '/asking' },
  { title: 'Open hours', hint: 'go', to: '/open-hours' },
  { title: 'New open hours', hint: 'do', to: '/open-hours/new' },
  { title: 'Start one now', hint: 'do', to: '/now' },
  { title: 'New series', hint: 'do', to: '/series/new' },
  { title: 'Add a person', hint: 'do', to: '/people?do=add' },
  { title: 'Import people', hint: 'do', to: '/people?do=import' },
  { title: 'Add a place', hint: 'do', to: '/people?show=places&do=add' },
  { title: 'Add a group', hint: 'do', to: '/people?show=groups&do=add' },
  { title: 'My hours and calendars', hint: 'go', to: '/me' },
  { title: 'Keys on this page', hint: 'do', to: '?' },
]
const KINDS = {
  series: { to: '/series/', hint: 'series' },
  sheet: { to: '/meetings/', hint: 'sheet' },
  person: { to: '/people/', hint: 'person' },
  place: { to: '/places/', hint: 'place' },
  group: { to: '/people?show=groups', hint: 'group' },
} as const
const { data, isFetching } = useQuery({
  queryKey: computed(() => ['destinations', typed.value]),
  enabled: open,
  placeholderData: before => before,
  gcTime: 0, // which sheet is next may be another one when it is asked for again
  queryFn: () => dataOf(api.GET('/destinations', { params: { query: { query: typed.value } } })),
})
const choices = computed(() => {
  const words = plain(typed.value).split(/\s+/).filter(Boolean)
  const fixed = FIXED.filter(one => words.every(word => plain(one.title).includes(word)))
  const found = (data.value?.destinations ?? []).map(one => {
    const { to, hint } = KINDS[one.kind]
    return {
      title: one.on ? `${one.title}, ${shortDay(one.on)}` : one.title,
      hint,
      to: `${to}${one.kind === 'group' ? '' : one.id}`,
    }
  })
  if (!words.length) return [...fixed, ...found]
  const everywhere = {
    title: `Search for “${typed.value.trim()}”`,
    hint: 'do',
    to: `/search?q=${encodeURIComponent(typed.value.trim())}`,
  }
  return [...found, ...fixed, everywhere]
})
watch([open, typed], () => {
  chosen.value = 0
})
const box = ref<HTMLInputElement>()
// The hand comes back to where it was.
let before: Element | null = null
watch(open, shown => {
  typed.value = ''
  if (shown) {
    before = document.activeElement
    nextTick(() => box.value?.focus())
  } else if (before instanceof HTMLElement) before.focus()
})

function move(by: number) {
  chosen.value = (chosen.value + by + choices.value.length) % Math.max(choices.value.length, 1)
}

// Fast hands press Enter before what they typed has been looked up: what they mean is the first that is found then.
const hasty = ref(false)
function enter() {
  if (isFetching.value && chosen.value === 0) hasty.value = true
  else take(choices.value[chosen.value]?.to)
}
watch(isFetching, fetching => {
  if (fetching || !hasty.value) return
  hasty.value = false
  if (open.value) take(choices.value[0]?.to)
})

function take(to: string | undefined) {
  if (!to) return
  open.value = false
  if (to === '?') emit('help')
  else router.push(to)
}
</script>

<template>
  <v-dialog v-model="open" max-width="560" aria-label="Go to or do" location="top" class="goto">
    <v-card>
      <input
        ref="box"
        v-model="typed"
        class="box"
        placeholder="Go to or do…"
        aria-label="Go to or do"
        role="combobox"
        aria-expanded="true"
        aria-controls="choices"
        :aria-activedescendant="`choice-${chosen}`"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
        @keydown.enter.prevent="enter()"
      />
      <ul id="choices" role="listbox" aria-label="Places and deeds">
        <li
          v-for="(choice, i) in choices"
          :id="`choice-${i}`"
          :key="choice.to"
          role="option"
          :aria-selected="i === chosen"
          :class="{ chosen: i === chosen }"
          @click="take(choice.to)"
          @mousemove="chosen = i"
        >
          <span>{{ choice.title }}</span><span class="soft small">{{ choice.hint }}</span>
        </li>
      </ul>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  width: 100%;
  padding: 14px 18px;
  border: 0;
  border-bottom: 1px solid var(--line);
  font: inherit;
  font-size: 1.1429rem;
  color: var(--ink);
  background: none;
  outline: none;
}
ul {
  max-height: 380px;
  overflow: auto;
  padding: 6px;
}
li {
  display: flex;
  justify-content: space-between;
  padding: 8px 12px;
  border-radius: 3px;
  cursor: pointer;
}
li.chosen {
  background: var(--pine-pale);
}
</style>
