<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import { type Schemas } from '../api/client'
import { base64, useCalendars, type Calendar, type Owner } from '../composables/useCalendars'
import { clock, count, shortDay, since } from '../time'
import { useSession } from '../composables/useSession'
import { useRemoval } from '../composables/useRemoval'
import FormDialog from './FormDialog.vue'
import MomentField from './MomentField.vue'
import { useFaults } from '../composables/useFaults'

/** The calendars of a person or place: a file, an address that is read again and again, or busy times by hand. */
const { owner, enabled } = defineProps<{ owner: Owner; enabled: boolean }>()
const { calendars, add, replace, readAgain, cancel, remove, addEntry, removeEntry, actError, isActing, resetAct } =
  useCalendars(
    () => owner,
    () => enabled,
  )

const { person: me } = useSession()
const removal = useRemoval()
const open = ref(false)
const whose = computed(() => (owner.kind === 'place' ? 'it is' : owner.id === me.value?.id ? 'you are' : 'they are'))
const KINDS = [
  { title: 'A calendar file (.ics)', value: 'file' },
  { title: 'An address that is read again and again', value: 'address' },
  { title: 'Busy times entered by hand', value: 'by_hand' },
]
const form = ref({ id: '', name: '', kind: 'file' as Schemas['CalendarKind'], address: '', file: null as File | null })
const tried = ref(false)
const entering = ref<Calendar | null>(null)
const entry = ref({ id: '', title: '', from: '', to: '', weekly: false })
const { at, rest } = useFaults(actError, /^\/(content|address|name|localStart|localEnd)$/)
const reading = (calendar: Calendar) => ['waiting', 'running'].includes(calendar.state)
const isEntering = computed({
  get: () => entering.value !== null,
  set: shown => {
    if (!shown) entering.value = null
  },
})

/** What an address is called by its last part, or by its host. */
function nameOf(address: string) {
  try {
    const url = new URL(address.replace(/^webcal/, 'https'))
    return (
      decodeURIComponent(url.pathname.split('/').filter(Boolean).at(-1) ?? '').replace(/\.(ics|ifb)$/i, '') || url.host
    )
  } catch {
    return 'Subscribed'
  }
}

function begin() {
  resetAct()
  form.value = { id: newKey(), name: '', kind: 'file', address: '', file: null }
  tried.value = false
  open.value = true
}
async function save() {
  const { id, kind, address, file } = form.value
  tried.value = true
  if ((kind === 'file' && !file) || (kind === 'address' && !address.trim())) return
  const name =
    form.value.name.trim() || (kind === 'file' ? (file?.name ?? '') : kind === 'address' ? nameOf(address) : 'By hand')
  try {
    await add({
      id,
      name,
      kind,
      ...(kind === 'address' ? { address } : {}),
      ...(kind === 'file' && file ? { content: await base64(file) } : {}),
    })
    open.value = false
  } catch {
    /* shown at the field */
  }
}
async function replaceWith(calendar: Calendar, event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) replace(calendar.id, await base64(file))
}
function enter(calendar: Calendar) {
  resetAct()
  entry.value = { id: newKey(), title: '', from: '', to: '', weekly: false }
  entering.value = calendar
}
async function saveEntry() {
  try {
    await addEntry(entering.value!.id, {
      id: entry.value.id,
      title: entry.value.title || null,
      localStart: entry.value.from,
      localEnd: entry.value.to,
      rule: entry.value.weekly ? 'FREQ=WEEKLY' : null,
    })
    entering.value = null
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section id="calendars-section" class="sheet" aria-labelledby="calendars">
    <div class="row spread">
      <h2 id="calendars">Calendars</h2>
      <v-btn size="small" variant="outlined" @click="begin">Add a calendar</v-btn>
    </div>
    <p v-if="calendars?.length === 0" class="soft">
      No calendar yet. Without one, nobody here can tell when {{ whose }} free.
    </p>
    <ul class="ruled">
      <li v-for="calendar in calendars?.filter(removal.isThere)" :key="calendar.id">
        <div class="row spread">
          <span
            ><b>{{ calendar.name }}</b> {{ ' '
            }}<span class="small soft">{{
              calendar.kind === 'by_hand'
                ? 'by hand'
                : calendar.kind === 'address'
                  ? calendar.address
                  : count(calendar.events ?? 0, 'event')
            }}</span></span
          >
          <span class="row">
            <button v-if="calendar.kind === 'by_hand'" type="button" class="quiet small" @click="enter(calendar)">
              Add a busy time
            </button>
            <button
              v-if="calendar.kind === 'address'"
              type="button"
              class="quiet small"
              :aria-label="`Read now: ${calendar.name}`"
              @click="readAgain(calendar.id)"
            >
              Read now
            </button>
            <label v-if="calendar.kind === 'file'" class="quiet small file"
              >Replace the file<input
                type="file"
                accept=".ics,text/calendar"
                :aria-label="`Replace the file of ${calendar.name}`"
                @change="replaceWith(calendar, $event)"
            /></label>
            <button
              type="button"
              class="quiet small"
              :aria-label="`Remove: ${calendar.name}`"
              @click="
                removal.remove(calendar.id, `The calendar ${calendar.name} is removed.`, () => remove(calendar.id))
              "
            >
              Remove
            </button>
          </span>
        </div>
        <div v-if="reading(calendar)" class="row" role="status">
          <v-progress-linear
            :model-value="(100 * calendar.done) / Math.max(calendar.total ?? 1, 1)"
            :indeterminate="calendar.total === null"
            color="primary"
            class="bar"
            :aria-label="`Reading ${calendar.name}`"
          />
          <span class="small">{{
            calendar.total === null ? 'waiting to be read' : `${calendar.done} of ${calendar.total} read`
          }}</span><button type="button" class="quiet small" @click="cancel(calendar.id)">Stop reading</button>
        </div>
        <p v-else class="small soft">
          <template v-if="calendar.succeededAt">read {{ since(calendar.succeededAt) }}</template
          ><template v-else-if="calendar.kind === 'address'">not read yet</template>
          <template v-if="calendar.state === 'cancelled'"> · reading was stopped; what was known before stays</template>
        </p>
        <p v-if="calendar.lastError" class="small alarm" role="alert">
          {{ calendar.lastError }}<template v-if="calendar.succeededAt"> What was known before stays.</template>
        </p>
        <details v-if="calendar.warnings.length" class="small">
          <summary>{{ count(calendar.warnings.length, 'remark') }}</summary>
          <p v-for="warning in calendar.warnings" :key="warning">{{ warning }}</p>
        </details>
        <ul v-if="calendar.entries.length" class="small">
          <li v-for="one in calendar.entries.filter(removal.isThere)" :key="one.id" class="row">
            {{ shortDay(one.localStart) }}, {{ clock(one.localStart) }}–{{ clock(one.localEnd) }} {{ one.title
            }}{{ one.rule ? ', every week' : '' }}
            <button
              type="button"
              class="quiet small"
              @click="
                removal.remove(one.id, `${one.title ?? 'The busy time'} is removed.`, () =>
                  removeEntry(calendar.id, one.id),
                )
              "
            >
              Remove
            </button>
          </li>
        </ul>
      </li>
    </ul>
    <FormDialog v-model="open" title="Add a calendar" verb="Add" :error="rest" :busy="isActing" @submit="save">
      <v-radio-group v-model="form.kind" hide-details
        ><v-radio v-for="kind in KINDS" :key="kind.value" :label="kind.title" :value="kind.value"
      /></v-radio-group>
      <v-file-input
        v-if="form.kind === 'file'"
        :model-value="form.file ?? undefined"
        label="Calendar file"
        accept=".ics,text/calendar"
        variant="outlined"
        density="compact"
        prepend-icon=""
        :error-messages="tried && !form.file ? 'Choose a file.' : at('/content')"
        @update:model-value="
          file => {
            form.file = Array.isArray(file) ? (file[0] ?? null) : (file ?? null)
          }
        "
      />
      <v-text-field
        v-if="form.kind === 'address'"
        v-model="form.address"
        label="Address"
        placeholder="https://…/calendar.ics"
        :error-messages="tried && !form.address.trim() ? 'Give the address.' : at('/address')"
      />
      <v-text-field v-model="form.name" label="Name" hint="optional" :error-messages="at('/name')" />
      <p class="small soft">Others see that {{ whose }} busy, never with what.</p>
    </FormDialog>
    <FormDialog
      v-model="isEntering"
      v-model:form="entry"
      draft="busy-time"
      title="A busy time"
      verb="Save"
      :error="rest"
      :busy="isActing"
      @submit="saveEntry"
    >
      <v-text-field v-model="entry.title" label="What (only for you)" />
      <MomentField v-model="entry.from" label="From" :error-messages="at('/localStart')" />
      <MomentField v-model="entry.to" label="To" :error-messages="at('/localEnd')" />
      <v-checkbox v-model="entry.weekly" label="Every week" />
    </FormDialog>
  </section>
</template>

<style scoped>
.bar {
  flex: 1;
  min-width: 120px;
}
.file {
  position: relative;
  cursor: pointer;
}
.file input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.file:focus-within {
  outline: 2px solid var(--alarm);
}
</style>
