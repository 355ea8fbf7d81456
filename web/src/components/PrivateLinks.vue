<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, dataOf } from '../api/client'
import { useNotice } from '../composables/useNotice'
import FormDialog from './FormDialog.vue'

/** All private links of somebody are made new, when one of them has gone to somebody else. */
const { id, name, own } = defineProps<{ id: string; name: string; own: boolean }>()
const open = ref(false)
const { say } = useNotice()
const { mutate, error, isPending } = useMutation({
  mutationFn: () => dataOf(api.POST('/people/{id}/private-links', { params: { path: { id } } })),
  onSuccess: () => {
    open.value = false
    say('The old links do not work any more. A mail with the new ones is on its way.')
  },
})
</script>

<template>
  <section aria-labelledby="links">
    <h2 id="links">Links in mails</h2>
    <p class="small soft">
      They let whoever has one answer for {{ own ? 'you' : name }}, without signing in. When one has gone to somebody
      else, have them all made new.
    </p>
    <v-btn variant="outlined" size="small" @click="open = true">New links</v-btn>
    <FormDialog
      v-model="open"
      :title="own ? 'New links for you' : `New links for ${name}`"
      verb="Make them new"
      :error="error"
      :busy="isPending"
      @submit="mutate()"
    >
      <p>
        All links by which {{ own ? 'you' : name }} can answer, pick a time, or say how an action goes stop working, in
        mails and calendars. One mail with the new ones goes out at once. Links into calls stay as they are.
      </p>
    </FormDialog>
  </section>
</template>
