<script setup lang="ts" generic="F">
import { nextTick, ref, useId, useTemplateRef, watch } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import { focusFault } from '../composables/useFaults'
import { useMine } from '../composables/useMine'
import { useNotice } from '../composables/useNotice'
import ProblemNote from './ProblemNote.vue'

/**
 * A small form over the page: a title, fields, one verb. With a name for its draft, what was typed outlives Esc, a
 * press outside, and the page itself; Cancel lets it go, with a way back.
 */
const {
  width = 480,
  error = null,
  draft = undefined,
  busy = false,
} = defineProps<{
  title: string
  verb: string
  error?: Error | null
  busy?: boolean
  width?: number
  disabled?: boolean
  draft?: string
}>()
const open = defineModel<boolean>({ required: true })
const form = defineModel<F>('form')
const emit = defineEmits<{ submit: [] }>()
const titleId = useId()
const { say } = useNotice()
const box = useTemplateRef<HTMLFormElement>('box')
const restored = ref(false)
let begun = ''
// Whoever closes it from outside has saved what was typed.
let leaving = false
let opener: Element | null = null

const key = () => useMine().mine(`draft:dialog:${draft}`)
const now = () => JSON.stringify(form.value)
const changed = () => draft !== undefined && begun !== '' && now() !== begun

// The page fills the form as it opens; what was left as a draft comes after that.
watch(
  open,
  async (shown, before) => {
    // One that is only made, and not open yet, has closed nothing: the draft of its last time stays.
    if (!shown) return before === undefined ? undefined : closed()
    opener = document.activeElement
    restored.value = false
    await nextTick()
    begun = now() ?? ''
    const saved = draft === undefined ? null : localStorage.getItem(key())
    if (saved !== null && saved !== begun) {
      form.value = JSON.parse(saved)
      restored.value = true
    }
    await nextTick()
    focusFirst()
  },
  { immediate: true },
)

watch(
  form,
  () => {
    if (!open.value || draft === undefined || begun === '') return
    if (changed()) localStorage.setItem(key(), now())
    else localStorage.removeItem(key())
  },
  { deep: true },
)

function closed() {
  if (!leaving && draft !== undefined) localStorage.removeItem(key())
  leaving = false
  begun = ''
  if (opener instanceof HTMLElement) opener.focus()
}

/** By Esc, a press outside or the way back: what was typed stays. */
function leave() {
  leaving = true
  if (changed()) say('What you typed is kept as a draft. It is there when you open this again.')
  open.value = false
}

function cancel() {
  const typed = changed() ? now() : null
  const back = form.value
  leaving = true
  if (draft !== undefined) localStorage.removeItem(key())
  open.value = false
  if (typed !== null && back !== undefined) {
    say('Nothing was changed.', () => {
      localStorage.setItem(key(), typed)
      open.value = true
    })
  }
}

function startAnew() {
  form.value = JSON.parse(begun)
  restored.value = false
}

function focusFirst() {
  if (box.value?.contains(document.activeElement) && document.activeElement !== box.value) return
  const field = box.value?.querySelector<HTMLElement>(
    '.fields :is(input, textarea, button, [tabindex="0"]):not([disabled]):not([type=hidden])',
  )
  // Where there is nothing to fill in, Enter does what the dialog asks for.
  ;(field ?? box.value?.querySelector<HTMLElement>('[type=submit]'))?.focus()
}

// A fault takes the hand to its field, whether it is found here or comes back as the answer.
watch([() => error, () => busy], async () => {
  await nextTick()
  await nextTick()
  if (!busy) focusFault(box.value)
})
// A spinner alone says little to who waits longer, and nothing to who does not see it.
const waits = ref(false)
let waiting: ReturnType<typeof setTimeout>
watch(
  () => busy,
  now => {
    clearTimeout(waiting)
    waits.value = false
    if (now) waiting = setTimeout(() => (waits.value = true), 1000)
  },
)
function submit() {
  emit('submit')
  setTimeout(() => focusFault(box.value), 50)
}

onBeforeRouteLeave(() => {
  if (!open.value) return true
  leave()
  return false
})
</script>

<template>
  <v-dialog :model-value="open" :max-width="width" :aria-labelledby="titleId" scrollable @update:model-value="leave">
    <v-card>
      <form ref="box" class="form" novalidate @submit.prevent="submit">
        <h2 :id="titleId">{{ title }}</h2>
        <div class="fields">
          <p v-if="restored" class="restored small" role="status">
            Your draft is back. <button type="button" class="quiet" @click="startAnew">Start anew</button>
          </p>
          <slot />
        </div>
        <ProblemNote :error="error" />
        <div class="row foot">
          <v-btn type="submit" :loading="busy" :disabled="disabled">{{ verb }}</v-btn>
          <v-btn variant="text" @click="cancel">Cancel</v-btn>
          <slot name="foot" />
          <span v-if="waits" class="small soft" role="status">This takes a moment …</span>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  max-height: calc(100vh - 48px);
  padding: 22px 0 18px;
}
.form > * {
  padding-left: 26px;
  padding-right: 26px;
  flex: none;
}
.fields {
  display: grid;
  gap: 14px;
  margin: 10px 0;
  padding-top: 6px;
  padding-bottom: 6px;
  flex: 0 1 auto;
  overflow: auto;
}
.foot {
  align-items: center;
  padding-top: 6px;
}
.restored {
  padding: 6px 10px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
}
</style>
