<script setup lang="ts">
import { ref, watch } from 'vue'
import { type Series } from '../api/client'
import { useEnding } from '../composables/useEnding'
import { useNotice } from '../composables/useNotice'
import DateField from './DateField.vue'
import FormDialog from './FormDialog.vue'
import { useFaults } from '../composables/useFaults'

/** No meetings between two days, as over the summer. */
const { series } = defineProps<{ series: Series }>()
const open = defineModel<boolean>({ required: true })
const { pause, pauseError, isPausing } = useEnding(() => series.id, false)
const { say } = useNotice()
const empty = () => ({ fromDay: '', untilDay: '', reason: '' })
const form = ref(empty())
watch(open, shown => {
  if (shown) form.value = empty()
})
const { at, rest } = useFaults(pauseError, /^\/reason$/)

async function save() {
  try {
    await pause(form.value)
    open.value = false
    say('The meetings in between are called off. Nobody is told until you send the invitation again.')
  } catch {
    /* shown in the form */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`pause-${series.id}`"
    title="Pause the series"
    verb="Pause it"
    :error="rest"
    :busy="isPausing"
    :disabled="!form.fromDay || !form.untilDay"
    @submit="save"
  >
    <p class="soft small">Open actions stay, and do not count meetings that are not held.</p>
    <DateField v-model="form.fromDay" label="From" />
    <DateField v-model="form.untilDay" label="Until" />
    <v-text-field v-model="form.reason" label="Why" :error-messages="at('/reason')" />
  </FormDialog>
</template>
