<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as newKey } from 'uuid'
import { useDraft } from '../composables/useDraft'
import { useCopy } from '../composables/useCopy'
import { useInvitation } from '../composables/useSeries'
import { useSession } from '../composables/useSession'
import { clock, count, wallNow } from '../time'
import { unreachableWords } from '../untold'
import FormDialog from './FormDialog.vue'
import MailPage from './MailPage.vue'

/** To whom and what, before it goes; then how far it has come. */
const { seriesId } = defineProps<{ seriesId: string }>()
const open = defineModel<boolean>({ required: true })

const { draft: typed, forget } = useDraft(`invitation-${seriesId}`, () => '')
const note = ref(typed.value)
let timer: ReturnType<typeof setTimeout>
watch(typed, text => {
  clearTimeout(timer)
  timer = setTimeout(() => {
    note.value = text
  }, 300)
})
const whose = ref<string | undefined>()
const WHAT = {
  invited: 'is invited',
  changed: 'is told of the changes',
  'called off': 'is told that it is called off',
  'taken off': 'is told not to come',
  'brought back': 'is told that it takes place after all',
  nothing: 'has this already',
}
const { preview, error, send, isSending, sent, reset } = useInvitation(() => seriesId, note, open, whose)
const asText = ref(false)
const { person: me } = useSession()
const zone = computed(() => me.value?.timeZone ?? 'UTC')
watch(sent, now => {
  if (now) forget()
})
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
const fresh = computed(() => preview.value?.recipients.filter(person => !person.told).length ?? 0)
let key = newKey()
watch(open, shown => {
  if (!shown) return
  key = newKey()
  whose.value = undefined
  reset()
})

const putAside = useCopy()
/** For those who are invited by other ways. */
const copy = () => putAside(`${preview.value!.subject}\n\n${preview.value!.copy}`, 'The text is copied.')

function submit() {
  if (sent.value) open.value = false
  else if (note.value === typed.value) send(key)
  else {
    note.value = typed.value
    send(key)
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Send the invitation"
    :verb="sent ? 'Done' : `Send to ${count(fresh, 'person')}`"
    :error="error"
    :busy="isSending"
    :disabled="!sent && fresh === 0"
    :width="820"
    @submit="submit"
  >
    <div v-if="sent" role="status" class="stack">
      <p class="strong">
        {{
          sent.waiting === sent.held
            ? `Sent to ${count(sent.sent, 'person')}.`
            : `${sent.sent} of ${sent.sent + sent.waiting} sent. You can leave; it goes on.`
        }}
      </p>
      <p v-if="sent.held && sent.heldUntil">
        {{ count(sent.held, 'mail') }} {{ sent.held === 1 ? 'goes' : 'go' }} at
        {{ clock(wallNow(zone, new Date(sent.heldUntil))) }}, with whatever else you change until then.
      </p>
      <p v-if="sent.failed" class="alarm">{{ count(sent.failed, 'mail') }} could not be delivered.</p>
      <v-progress-linear
        :model-value="(100 * sent.sent) / Math.max(sent.sent + sent.waiting, 1)"
        color="primary"
        aria-label="Mail handed over"
      />
    </div>
    <div v-else-if="preview" class="cols">
      <div>
        <p class="eyebrow">To</p>
        <ul class="ruled">
          <li v-for="person in preview.recipients" :key="person.personId">
            <button
              type="button"
              class="quiet"
              :class="{ soft: person.told }"
              :aria-pressed="person.personId === preview.shownPersonId"
              @click="whose = person.personId"
            >
              {{ person.name }}</button><br /><span class="soft small"
              >{{ ROLES[person.role] }}, {{ WHAT[person.what] }}</span
            >
          </li>
        </ul>
        <p v-if="preview.unreachable.length" class="small carried">
          {{ unreachableWords(preview.unreachable) }}. Tell them yourself: “Copy the text” is for that.
        </p>
      </div>
      <div class="stack">
        <p v-if="fresh === 0" class="strong">Everybody has this version already. There is nothing to send.</p>
        <v-textarea v-model="typed" label="A note for this mail (optional)" rows="2" />
        <ul v-if="preview.changes.length" class="small changes">
          <li v-for="change in preview.changes" :key="change.label + change.before">
            <b>{{ change.label }}</b> <del v-if="change.before" class="soft">{{ change.before }}</del>
            {{ change.after ?? 'none' }}
          </li>
        </ul>
        <p class="eyebrow">
          What {{ preview.recipients.find(one => one.personId === preview!.shownPersonId)?.name }} gets
        </p>
        <p class="strong">{{ preview.subject }}</p>
        <pre v-if="asText" class="text">{{ preview.text }}</pre>
        <MailPage v-else :series-id="seriesId" :note="note" :person-id="preview.shownPersonId" />
        <p class="row">
          <button type="button" class="quiet small" :aria-pressed="asText" @click="asText = !asText">
            {{ asText ? 'Show it as mailed' : 'Show it as text' }}</button><button
            type="button"
            class="quiet small"
            @click="copy"
          >
            Copy the text
          </button>
        </p>
        <p class="soft small">
          With the calendar entry of all meetings<template v-if="preview.attachments.length">
            and
            <template v-for="(name, i) in preview.attachments" :key="name"
              >{{ i ? ', ' : ''
              }}<a
                v-if="name === 'agenda.pdf'"
                :href="`/api/meetings/${preview.agendaOf}/agenda`"
                target="_blank"
                rel="noopener"
                >{{ name }}</a
              ><template v-else>{{ name }}</template></template
            ></template
          >
          attached.
        </p>
      </div>
    </div>
    <v-progress-linear v-else-if="!error" indeterminate color="primary" aria-label="Looking up who is to be told" />
  </FormDialog>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 24px;
}
.changes {
  padding: 8px 12px;
  background: var(--gold-pale);
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  margin-bottom: 0;
  padding: 12px 14px;
  border: 1px solid var(--line);
  border-radius: 3px;
  font:
    0.9286rem/1.5 'Figtree Variable',
    sans-serif;
  background: var(--paper);
}
@media (max-width: 700px) {
  .cols {
    grid-template-columns: 1fr;
  }
}
</style>
