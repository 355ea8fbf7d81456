<script setup lang="ts">
import { ref } from 'vue'
import { useUntold } from '../composables/useSeries'
import { untoldSentence } from '../untold'
import InvitationDialog from './InvitationDialog.vue'

/** On a sheet, to whoever runs the series: that not everybody knows of it yet. */
const { seriesId, runsIt } = defineProps<{ seriesId: string; runsIt: boolean }>()
const { untold } = useUntold(
  () => seriesId,
  () => runsIt,
)
const open = ref(false)
</script>

<template>
  <p v-if="untold && untold.people > 0" class="small carried no-print">
    Not told yet: {{ untoldSentence(untold) }}.
    <button type="button" class="quiet small" @click="open = true">Send …</button>
  </p>
  <InvitationDialog v-if="runsIt" v-model="open" :series-id="seriesId" />
</template>
