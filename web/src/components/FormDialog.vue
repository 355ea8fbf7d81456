<script setup lang="ts">
import { useId } from 'vue'
import ProblemNote from './ProblemNote.vue'

/** A small form over the page: a title, fields, one verb. */
const { width = 480, error = null } = defineProps<{ title: string; verb: string; error?: Error | null; busy?: boolean; width?: number; disabled?: boolean }>()
const open = defineModel<boolean>({ required: true })
defineEmits<{ submit: [] }>()
const titleId = useId()
</script>

<template>
  <v-dialog v-model="open" :max-width="width" :aria-labelledby="titleId" scrollable>
    <v-card>
      <form class="form" novalidate @submit.prevent="$emit('submit')">
        <h2 :id="titleId">{{ title }}</h2>
        <div class="fields"><slot /></div>
        <ProblemNote :error="error" />
        <div class="row foot">
          <v-btn type="submit" :loading="busy" :disabled="disabled">{{ verb }}</v-btn>
          <v-btn variant="text" @click="open = false">Leave it</v-btn>
          <slot name="foot" />
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form { display: flex; flex-direction: column; max-height: calc(100vh - 48px); padding: 22px 0 18px; }
.form > * { padding-left: 26px !important; padding-right: 26px !important; flex: none; }
.fields { display: grid; gap: 14px; margin: 10px 0; padding-top: 6px; padding-bottom: 6px; flex: 0 1 auto !important; overflow: auto; }
.foot { align-items: center; padding-top: 6px; }
</style>
