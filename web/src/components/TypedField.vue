<script setup lang="ts" generic="T extends string | number | null">
import { computed, ref, watch } from 'vue'

/**
 * A text field for something that is read as it is typed: what is understood goes out at once, how it is written comes
 * when the field is left. Arrow keys take the next and the one before.
 */
const {
  read,
  write,
  step = undefined,
  wrong,
  errorMessages = undefined,
} = defineProps<{
  label: string
  /** null: not understood */
  read: (typed: string) => T | null
  write: (value: T) => string
  step?: (value: T | null, by: number) => T
  /** What is said of something that is not understood. */
  wrong: string
  errorMessages?: string | string[]
}>()
const value = defineModel<T | null | ''>({ required: true })

const isEmpty = (one: T | null | '' | undefined): one is null | '' | undefined =>
  one === null || one === '' || one === undefined
const written = (one: T | null | '') => (isEmpty(one) ? '' : write(one as T))
const text = ref(written(value.value))
const typing = ref(false)
const unread = computed(
  () => text.value.trim() !== '' && read(text.value) === null && text.value !== written(value.value),
)
// What is not understood stays as it was typed.
watch(value, now => {
  if (!typing.value && !(isEmpty(now) && unread.value)) text.value = written(now)
})
const fault = computed(() => (unread.value && !typing.value ? wrong : errorMessages))

function type(typed: string | null) {
  text.value = typed ?? ''
  typing.value = true
  const found = text.value.trim() === '' ? '' : read(text.value)
  // Always said, also when it seems to be the same: what was said for the key before may not have come back yet.
  value.value = found ?? ''
}

function leave() {
  typing.value = false
  if (!unread.value) text.value = written(value.value)
}

function move(by: number) {
  if (!step) return
  value.value = step(isEmpty(value.value) ? null : (value.value as T), by)
  text.value = written(value.value)
  typing.value = false
}

function choose(one: T) {
  value.value = one
  text.value = write(one)
  typing.value = false
}
defineExpose({ choose })
const selectAll = (event: Event) => {
  ;(event.target as HTMLInputElement).select()
}
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="label"
    :error-messages="fault"
    autocomplete="off"
    @update:model-value="type"
    @focus="selectAll"
    @blur="leave"
    @keydown.enter="leave"
    @keydown.up.prevent="move(1)"
    @keydown.down.prevent="move(-1)"
  >
    <template v-if="$slots.pick" #append-inner><slot name="pick" :choose="choose" /></template>
  </v-text-field>
</template>
