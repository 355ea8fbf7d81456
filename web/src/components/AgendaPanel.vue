<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Sheet } from '../api/client'
import { clock, count, list, shortDay } from '../time'
import { whoGets } from '../untold'
import FormDialog from './FormDialog.vue'

/** What becomes of an agenda before its meeting: sent, sent again when it has changed, topics asked for. */
const { sheet } = defineProps<{ sheet: Sheet; busy: boolean }>()
const emit = defineEmits<{ send: [note: string]; ask: []; settle: [take: boolean] }>()
const sending = ref(false)
const form = ref({ note: '' })
const sent = computed(() => sheet.agendaSent)
const differs = computed(() => {
  const changes = sheet.standingChanges
  if (!changes) return ''
  const said = (words: string, titles: string[]) => (titles.length ? [`${words} ${list(titles)}`] : [])
  return [
    ...said('new:', changes.added),
    ...said('changed:', changes.changed),
    ...said('no longer on it:', changes.removed),
  ].join('; ')
})
const asked = computed(() => sheet.people.filter(one => one.answer !== 'declined'))
const anything = computed(() => sheet.topics.length > 0 || sheet.leftOver.length > 0)

function send() {
  emit('send', form.value.note)
  sending.value = false
  form.value = { note: '' }
}
</script>

<template>
  <section class="agenda" aria-labelledby="agenda">
    <h2 id="agenda" class="eyebrow">Agenda</h2>
    <p v-if="sent" class="small" :class="{ carried: sent.changed }">
      Sent {{ shortDay(sent.localAt) }}, {{ clock(sent.localAt) }} to {{ count(sent.recipients, 'person')
      }}<template v-if="sent.changed">; it has changed since</template>.
    </p>
    <p class="row small">
      <button v-if="anything" type="button" class="quiet" :disabled="busy" @click="sending = true">
        {{ sent ? 'Send it again' : 'Send the agenda' }}
      </button>
      <button type="button" class="quiet" :aria-disabled="busy" @click="busy || emit('ask')">Ask for topics</button>
    </p>
    <div v-if="sheet.standingChanges" class="small differs" role="status">
      <p>The standing agenda has changed: {{ differs || 'its order' }}.</p>
      <button type="button" class="quiet" @click="emit('settle', true)">Take it over</button>
      <button type="button" class="quiet" @click="emit('settle', false)">Leave this sheet as it is</button>
    </div>
    <FormDialog
      v-model="sending"
      v-model:form="form"
      :draft="`agenda-${sheet.id}`"
      :title="sent ? 'Send the agenda again' : 'Send the agenda'"
      verb="Send"
      @submit="send"
    >
      <p class="soft small">
        To everybody asked who has not declined, with the agenda as a PDF: {{ whoGets(asked) }}.
        <template v-if="sent">What is new, moved, changed or gone is said.</template>
      </p>
      <v-textarea v-model="form.note" label="A few words with it (optional)" autofocus maxlength="5000" />
    </FormDialog>
  </section>
</template>

<style scoped>
.agenda {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.differs {
  margin-top: 6px;
  padding: 8px 12px;
  background: var(--gold-pale);
}
</style>
