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
.form { padding: 22px 26px; overflow: auto; }
.fields { display: grid; gap: 14px; margin: 16px 0; }
.foot { align-items: center; }
</style>
