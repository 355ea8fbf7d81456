<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, dataOf } from '../api/client'
import { shortDay } from '../time'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ help: [] }>()

const router = useRouter()
const typed = ref('')
const chosen = ref(0)
const FIXED = [
  { title: 'Desk', hint: 'go', to: '/' }, { title: 'Series', hint: 'go', to: '/series' }, { title: 'Actions', hint: 'go', to: '/actions' },
  { title: 'People & places', hint: 'go', to: '/people' }, { title: 'Find a common time', hint: 'do', to: '/common-time' }, { title: 'Groups', hint: 'go', to: '/people?show=groups' }, { title: 'Places', hint: 'go', to: '/people?show=places' },
  { title: 'New series', hint: 'do', to: '/series/new' }, { title: 'Keys of this screen', hint: 'do', to: '?' },
]
const { data } = useQuery({
  queryKey: computed(() => ['places-to-go', typed.value]), enabled: open, placeholderData: before => before,
  queryFn: () => dataOf(api.GET('/places-to-go', { params: { query: { query: typed.value } } })),
})
const choices = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  const fixed = FIXED.filter(place => words.every(word => place.title.toLowerCase().includes(word)))
  const found = (data.value?.places ?? []).map(place => place.kind === 'series'
    ? { title: place.title, hint: 'series', to: `/series/${place.id}` }
    : { title: `${place.title}, sheet of ${shortDay(place.on!)}`, hint: 'next sheet', to: `/meetings/${place.id}` })
  return words.length ? [...found, ...fixed] : [...fixed, ...found]
})
watch([open, typed], () => { chosen.value = 0 })
const box = ref<HTMLInputElement>()
watch(open, shown => {
  typed.value = ''
  if (shown) nextTick(() => box.value?.focus())
})

function move(by: number) { chosen.value = (chosen.value + by + choices.value.length) % Math.max(choices.value.length, 1) }

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
        ref="box" v-model="typed" class="box" placeholder="Go to or do…" aria-label="Go to or do" role="combobox" aria-expanded="true" aria-controls="choices"
        :aria-activedescendant="`choice-${chosen}`" @keydown.down.prevent="move(1)" @keydown.up.prevent="move(-1)" @keydown.enter.prevent="take(choices[chosen]?.to)">
      <ul id="choices" role="listbox" aria-label="Places and deeds">
        <li
          v-for="(choice, i) in choices" :id="`choice-${i}`" :key="choice.to" role="option" :aria-selected="i === chosen" :class="{ chosen: i === chosen }"
          @click="take(choice.to)" @mousemove="chosen = i">
          <span>{{ choice.title }}</span><span class="soft small">{{ choice.hint }}</span>
        </li>
      </ul>
      <p v-if="choices.length === 0" class="none soft">Nothing is called that.</p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box { width: 100%; padding: 14px 18px; border: 0; border-bottom: 1px solid var(--line); font: inherit; font-size: 16px; color: var(--ink); background: none; outline: none !important; }
ul { max-height: 380px; overflow: auto; padding: 6px !important; }
li { display: flex; justify-content: space-between; padding: 8px 12px; border-radius: 3px; cursor: pointer; }
li.chosen { background: var(--pine-pale); }
.none { padding: 14px 18px; }
</style>
