<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Sheet } from '../api/client'
import { useIntoSeries } from '../composables/useSheet'
import { useNotice } from '../composables/useNotice'
import { useSeriesList } from '../composables/useSeries'
import FormDialog from './FormDialog.vue'
import { useFaults } from '../composables/useFaults'

/** A meeting that stood alone becomes one of a series. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const open = defineModel<boolean>({ required: true })
const { series } = useSeriesList()
const { put, putError, isPutting } = useIntoSeries(() => sheet.id)
const { say } = useNotice()
const form = ref({ seriesId: null as string | null })
const others = computed(() =>
  (series.value ?? []).filter(one => one.id !== sheet.seriesId).map(one => ({ title: one.title, value: one.id })),
)
const { at, rest } = useFaults(putError, /^\/seriesId$/)
async function save() {
  try {
    const shown = await put(form.value.seriesId!)
    open.value = false
    say(`It is one of “${shown.seriesTitle}” now.`)
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    title="Put it into a series"
    verb="Put it there"
    :error="rest"
    :busy="isPutting"
    :disabled="!form.seriesId"
    @submit="save"
  >
    <p class="soft">
      Its sheet, papers and actions go along; what is open comes to the next sheet there. Who was asked and is not in
      that series was asked to this meeting alone. Nobody is told.
    </p>
    <v-autocomplete v-model="form.seriesId" :items="others" label="Series" :error-messages="at('/seriesId')" />
  </FormDialog>
</template>
