<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, dataOf, type Series } from '../api/client'
import { useChanged } from '../composables/useChanged'
import { useNotice } from '../composables/useNotice'
import { useSession } from '../composables/useSession'
import FormDialog from './FormDialog.vue'

/** Whoever is in a series, and does not run it, can leave it by themselves. */
const { series } = defineProps<{ series: Series }>()
const { person } = useSession()
const runs = computed(() => [series.keeper.id, series.chair.id].includes(person.value?.id ?? ''))
const isIn = computed(() => series.members.some(member => member.personId === person.value?.id))
const open = ref(false)
const form = ref({ word: '' })
const changed = useChanged()
const { say } = useNotice()
const router = useRouter()
const { mutate, error, isPending } = useMutation({
  mutationFn: () =>
    dataOf(
      api.POST('/series/{id}/leaving', {
        params: { path: { id: series.id } },
        body: { word: form.value.word || null },
      }),
    ),
  onSuccess: async () => {
    open.value = false
    await router.push('/series')
    changed('series')
    say(`You have left “${series.title}”. ${series.keeper.name} hears of it.`)
  },
})
</script>

<template>
  <p v-if="isIn && !runs && !series.outside">
    <button type="button" class="quiet" @click="open = true">Leave this series</button>
    <FormDialog
      v-model="open"
      v-model:form="form"
      title="Leave this series"
      verb="Leave"
      :error="error"
      :busy="isPending"
      @submit="mutate()"
    >
      <p>You are not asked any more, and it leaves your calendar. What you own in it stays yours.</p>
      <v-text-field v-model="form.word" :label="`A word to ${series.keeper.name} (optional)`" maxlength="500" />
    </FormDialog>
  </p>
</template>
