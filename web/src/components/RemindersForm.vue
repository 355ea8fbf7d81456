<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas } from '../api/client'
import { useReminders } from '../composables/useCalendars'
import { useNotice } from '../composables/useNotice'
import { useFaults } from '../composables/useFaults'
import ProblemNote from './ProblemNote.vue'

/** How somebody wants to be reminded of meetings. */
const { id, reminders } = defineProps<{ id: string; reminders: Schemas['Reminders'] }>()
const { keep, error, isKeeping } = useReminders(() => id)
const { say } = useNotice()

const BEFORE = [
  { title: 'as each series has it', value: null },
  { title: 'no mail', value: 0 },
  { title: '15 minutes before', value: 15 },
  { title: 'an hour before', value: 60 },
  { title: 'a day before', value: 1440 },
]
const KINDS: { kind: Schemas['MailKind']; label: string }[] = [
  { kind: 'informed_minutes', label: 'Minutes of meetings I am told of for information' },
  { kind: 'agenda_changed', label: 'Agendas that have changed' },
  { kind: 'reminders', label: 'Reminders of meetings, papers and actions' },
]
const form = ref({
  phone: '',
  textReminders: false,
  mailOwn: false,
  mailDigest: false,
  mailWithout: [] as Schemas['MailKind'][],
  remindMin: null as number | null,
})
watch(
  () => reminders,
  found => {
    form.value = {
      phone: found.phone ?? '',
      textReminders: found.textReminders,
      mailOwn: found.mailOwn,
      mailDigest: found.mailDigest,
      mailWithout: [...found.mailWithout],
      remindMin: found.remindMin,
    }
  },
  { immediate: true },
)
const changed = computed(
  () =>
    form.value.phone !== (reminders.phone ?? '') ||
    form.value.textReminders !== reminders.textReminders ||
    form.value.mailOwn !== reminders.mailOwn ||
    form.value.mailDigest !== reminders.mailDigest ||
    [...form.value.mailWithout].sort().join() !== [...reminders.mailWithout].sort().join() ||
    form.value.remindMin !== reminders.remindMin,
)
const { at, rest } = useFaults(error, /^\/phone$/)

async function save() {
  try {
    await keep({ ...form.value, phone: form.value.phone.trim() || null })
    say('Saved.')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section aria-labelledby="reminders">
    <h2 id="reminders">Reminders and mail</h2>
    <p class="small soft">None for meetings that were declined.</p>
    <form class="stack form" novalidate @submit.prevent="save">
      <v-select v-model="form.remindMin" :items="BEFORE" label="By mail" />
      <template v-if="reminders.texts">
        <v-checkbox v-model="form.textReminders" label="By text message as well" />
        <v-text-field
          v-if="form.textReminders || form.phone"
          v-model="form.phone"
          type="tel"
          autocomplete="tel"
          label="Number"
          placeholder="+47 55 00 00 00"
          :error-messages="at('/phone')"
        />
      </template>
      <v-checkbox v-model="form.mailOwn" label="Invitations and reminders of series I keep, too" />
      <fieldset class="kinds">
        <legend class="strong">What is not about today</legend>
        <label><input v-model="form.mailDigest" type="radio" name="digest" :value="false" /> each mail at once</label>
        <label
          ><input v-model="form.mailDigest" type="radio" name="digest" :value="true" /> together in the morning, at
          7:00</label
        >
        <p class="small soft">Invitations and their changes always come at once, so that your calendar is right.</p>
      </fieldset>
      <fieldset class="kinds">
        <legend class="strong">No mail at all for</legend>
        <label v-for="one in KINDS" :key="one.kind"
          ><input v-model="form.mailWithout" type="checkbox" :value="one.kind" /> {{ one.label }}</label
        >
      </fieldset>
      <ProblemNote :error="rest" />
      <v-btn type="submit" variant="outlined" :disabled="!changed" :loading="isKeeping">Save</v-btn>
    </form>
  </section>
</template>

<style scoped>
.form {
  margin-top: 12px;
  gap: 4px;
  justify-items: start;
}
.kinds {
  border: 0;
  padding: 0;
  margin: 4px 0 8px;
  display: grid;
  gap: 4px;
}
.form > .v-input {
  width: 100%;
}
</style>
