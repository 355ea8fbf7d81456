<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas, type Series } from '../api/client'
import { useEnding } from '../composables/useEnding'
import { useNotice } from '../composables/useNotice'
import { count, list } from '../time'
import FormDialog from './FormDialog.vue'
import { useFaults } from '../composables/useFaults'

/** A series ends, or goes on in another: where its open actions and topics go is asked, so that none vanishes. */
const { series } = defineProps<{ series: Series }>()
const open = defineModel<boolean>({ required: true })
const { ending, end, endError, isEnding } = useEnding(() => series.id, open)
const { say } = useNotice()

type Wish = Schemas['EndingWish']
const empty = () => ({
  reason: '',
  actions: { way: 'list' as Wish['actions']['way'], seriesId: null as string | null },
  topics: { way: 'drop' as Wish['topics']['way'], seriesId: null as string | null },
  peopleAlong: false,
})
const form = ref(empty())
watch(open, shown => {
  if (shown) form.value = empty()
})
const WAYS = [
  { title: 'stay open; their owners get one last list', value: 'list' },
  { title: 'go to another series', value: 'hand_over' },
  { title: 'are done', value: 'done' },
  { title: 'are dropped', value: 'drop' },
]
const others = computed(() => (ending.value?.series ?? []).map(one => ({ title: one.name, value: one.id })))
const { at, rest } = useFaults(endError, /^\/(reason|(actions|topics)\/seriesId)$/)

async function save() {
  try {
    await end({ ...form.value, fromMeetingId: null })
    open.value = false
    say('The series has ended. Nobody is told until you send the invitation.')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`end-${series.id}`"
    title="End the series"
    verb="End it"
    :error="rest"
    :busy="isEnding"
    :width="600"
    @submit="save"
  >
    <template v-if="ending">
      <p>{{ count(ending.meetings, 'meeting') }} to come {{ ending.meetings === 1 ? 'is' : 'are' }} called off.</p>
      <v-text-field v-model="form.reason" label="Why" :error-messages="at('/reason')" autofocus />
      <v-select
        v-if="ending.openActions"
        v-model="form.actions.way"
        :items="WAYS"
        :label="`${count(ending.openActions, 'open action')}`"
      />
      <v-select
        v-if="ending.openActions && form.actions.way === 'hand_over'"
        v-model="form.actions.seriesId"
        :items="others"
        label="Actions go to"
        :error-messages="at('/actions/seriesId')"
      />
      <v-select
        v-if="ending.topics.length"
        v-model="form.topics.way"
        :items="[
          { title: 'are dropped', value: 'drop' },
          { title: 'go to another series', value: 'hand_over' },
        ]"
        :label="`${count(ending.topics.length, 'topic')} to come`"
        :hint="list(ending.topics)"
        persistent-hint
      />
      <v-select
        v-if="ending.topics.length && form.topics.way === 'hand_over'"
        v-model="form.topics.seriesId"
        :items="others"
        label="Topics go to"
        :error-messages="at('/topics/seriesId')"
      />
      <v-checkbox
        v-if="form.actions.way === 'hand_over' && form.actions.seriesId"
        v-model="form.peopleAlong"
        label="Its people come along: the two series become one"
      />
    </template>
  </FormDialog>
</template>
