<script setup lang="ts">
import { nextTick, onMounted, useTemplateRef, watch } from 'vue'
import { formToken } from '../api/client'

/** The mail exactly as it goes out, in a frame that runs nothing. */
const { seriesId, note, personId } = defineProps<{ seriesId: string; note: string; personId: string }>()
const form = useTemplateRef<HTMLFormElement>('form')
const show = () => nextTick(() => form.value?.submit())
onMounted(show)
watch(() => [note, personId], show)
</script>

<template>
  <form ref="form" method="post" :action="`/api/series/${seriesId}/invitation/page`" target="mail-page" hidden>
    <input type="hidden" name="authenticity_token" :value="formToken()" /><input
      type="hidden"
      name="note"
      :value="note"
    /><input type="hidden" name="personId" :value="personId" />
  </form>
  <iframe name="mail-page" sandbox="" title="The mail" />
</template>

<style scoped>
iframe {
  width: 100%;
  height: 380px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--paper);
}
</style>
