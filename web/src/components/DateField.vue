<script setup lang="ts">
import { computed, ref } from 'vue'
import { mdiCalendarBlankOutline } from '@mdi/js'
import { useSession } from '../composables/useSession'
import { addDays, readDate } from '../reading'
import { shortDay, wallNow } from '../time'
import TypedField from './TypedField.vue'

/** A day, typed freely or picked: "fri 14", "14.12." or "+7". Shown with its weekday. */
const {
  timeZone = undefined,
  errorMessages = undefined,
  hint = undefined,
} = defineProps<{ label: string; errorMessages?: string | string[]; timeZone?: string; hint?: string }>()
const day = defineModel<string | null>({ required: true })
const { session } = useSession()
// Where nothing else is said, today is that of whoever is signed in, wherever their browser is.
const zone = computed(
  () => timeZone ?? session.value?.person?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
)
const today = computed(() => wallNow(zone.value).slice(0, 10))
const picking = ref(false)
const field = ref<{ choose: (day: string) => void } | null>(null)

// The year only where it is not this one.
const write = (value: string) =>
  value.startsWith(today.value.slice(0, 4)) ? shortDay(value) : `${shortDay(value)} ${value.slice(0, 4)}`
const local = (value: string) =>
  new Date(Number(value.slice(0, 4)), Number(value.slice(5, 7)) - 1, Number(value.slice(8, 10)))
function pick(chosen: unknown) {
  const at = chosen as Date
  picking.value = false
  field.value?.choose(
    `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, '0')}-${String(at.getDate()).padStart(2, '0')}`,
  )
}
</script>

<template>
  <TypedField
    ref="field"
    v-model="day"
    class="date"
    :label="label"
    :error-messages="errorMessages"
    :hint="hint"
    :persistent-hint="!!hint"
    :read="typed => readDate(typed, today, session?.monthFirst)"
    :write="write"
    :step="(value, by) => addDays(value ?? today, by)"
    wrong="This is no date. Write it like “fri 14” or “14 Dec 2026”."
  >
    <template #pick>
      <v-menu v-model="picking" :close-on-content-click="false" location="bottom end">
        <template #activator="{ props: menu }"
          ><v-btn
            v-bind="menu"
            :icon="mdiCalendarBlankOutline"
            variant="text"
            size="x-small"
            density="comfortable"
            tabindex="-1"
            :aria-label="`Pick: ${label}`"
        /></template>
        <v-date-picker
          :model-value="day ? local(day) : null"
          :first-day-of-week="1"
          show-adjacent-months
          hide-header
          :aria-label="label"
          @update:model-value="pick"
        />
      </v-menu>
    </template>
  </TypedField>
</template>

<style scoped>
.date :deep(.v-field) {
  --v-field-padding-end: 6px;
}
</style>
