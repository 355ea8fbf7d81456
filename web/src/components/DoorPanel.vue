<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas, Sheet } from '../api/client'
import { plainWords } from '../calls'
import { useCopy } from '../composables/useCopy'
import { useDoor } from '../composables/useDoor'
import { useKeys } from '../composables/useKeys'
import { useWaitingSound } from '../composables/useWaitingSound'
import { useSession } from '../composables/useSession'
import { clock, list, longDay, wallOf } from '../time'
import CallGuestForm from './CallGuestForm.vue'

/** The call of a meeting beside its sheet: who waits at the door, who is in, and the link for everybody else. */
const { sheet, call } = defineProps<{ sheet: Sheet; call: Schemas['OnCall'] }>()
const emit = defineEmits<{ show: [Sheet] }>()
const door = useDoor(
  () => sheet.id,
  shown => emit('show', shown),
)
const putAside = useCopy()
const { person: me } = useSession()
const waiting = computed(() => (sheet.may.hold ? call.waiting.length : 0))
const waits = () => sheet.may.hold && atTheDoor.value.length > 0
const { sounds } = useWaitingSound(waiting)
const guest = ref<Schemas['CallPerson'] | null>(null)
/** Those with a time of their own come in from their own list. */
const atTheDoor = computed(() => call.waiting.filter(one => sheet.row.every(slot => slot.visit !== one.visit)))
const first = () => atTheDoor.value[0]!.visit
const at = (moment: string) => clock(wallOf(moment, me.value?.timeZone ?? sheet.timeZone))
const before = computed(() => sheet.state === 'planned')
/** Who was there unasked and has left: they may belong on the sheet as well. */
const gone = computed(() =>
  sheet.may.hold && !before.value
    ? call.unlisted.filter(one => one.visit && call.here.every(other => other.visit !== one.visit))
    : [],
)
const notTried = computed(() =>
  sheet.people.filter(one => one.guest && !call.tried.includes(one.id)).map(one => one.name),
)

function copy() {
  const when = `${longDay(sheet.localStart)}, ${clock(sheet.localStart)} ${sheet.zoneCity} time`
  putAside(plainWords(sheet.seriesTitle, when, call.plain!), 'Copied: the link for those without one of their own.')
}

useKeys([
  { key: 'i', label: 'Let in who waits longest', when: waits, run: () => door.letIn(first()) },
  { key: 'I', label: 'Let all in', when: waits, run: () => door.letAllIn() },
  { key: 'X', label: 'Turn away who waits longest', when: waits, run: () => door.turnAway(first()) },
])
</script>

<template>
  <section class="door" aria-labelledby="door">
    <h2 id="door" class="eyebrow">
      The call<template v-if="call.here.length"> · {{ call.here.length }} in it</template>
    </h2>
    <p v-if="!call.made" class="carried strong small" role="status">The call is being made.</p>
    <p v-else-if="before && !call.here.length" class="small soft">
      Open from {{ at(call.opensAt) }} to {{ at(call.closesAt) }}.
    </p>
    <p v-if="call.recording" class="alarm strong small" role="status">Recording is on.</p>
    <div v-if="sheet.may.hold && atTheDoor.length" class="waiting" role="status">
      <p class="strong">
        {{ atTheDoor.length === 1 ? 'One waits' : `${atTheDoor.length} wait` }} at the door
        <button v-if="atTheDoor.length > 1" type="button" class="quiet small" @click="door.letAllIn()">
          Let all in
        </button>
      </p>
      <ul>
        <li v-for="one in atTheDoor" :key="one.visit" class="row spread">
          <span
            >{{ one.name }} <span class="soft small">since {{ at(one.since) }}</span></span
          >
          <span>
            <button
              type="button"
              class="quiet small"
              :aria-label="`Let in: ${one.name}`"
              @click="door.letIn(one.visit)"
            >
              Let in
            </button>
            <button
              type="button"
              class="quiet small"
              :aria-label="`Turn away: ${one.name}`"
              @click="door.turnAway(one.visit)"
            >
              Turn away
            </button>
          </span>
        </li>
      </ul>
    </div>
    <ul v-if="call.here.length || gone.length" aria-label="In the call">
      <li v-for="one in [...call.here, ...gone]" :key="one.visit ?? one.name ?? ''" class="row spread">
        <span
          >{{ one.name }}<span v-if="!one.listed" class="soft small"> was not asked</span
          ><span v-if="one.times > 1" class="carried strong small">
            {{ one.times === 2 ? 'twice' : `${one.times} times` }}: perhaps the link was passed on</span
          ><span v-if="gone.includes(one)" class="soft small">, gone</span></span
        >
        <span v-if="sheet.may.hold && one.visit">
          <button
            v-if="!one.listed && !before"
            type="button"
            class="quiet small"
            :aria-label="`Add to the sheet: ${one.name}`"
            @click="guest = one"
          >
            Add to the sheet
          </button>
          <button
            v-if="!gone.includes(one)"
            type="button"
            class="quiet small"
            :aria-label="`Take out: ${one.name}`"
            @click="door.takeOut(one.visit)"
          >
            Take out
          </button>
        </span>
      </li>
    </ul>
    <p v-if="before && sheet.may.hold && notTried.length" class="small soft">Not tried yet: {{ list(notTried) }}</p>
    <p class="row small">
      <button v-if="call.plain" type="button" class="quiet small" @click="copy()">Copy the link</button>
      <label v-if="sheet.may.hold && !before" class="soft"
        ><input v-model="sounds" type="checkbox" /> sound when somebody waits</label
      >
    </p>
    <CallGuestForm v-model="guest" :take="door.take" />
  </section>
</template>

<style scoped>
.door {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
li.row {
  row-gap: 0;
}
.waiting {
  margin: 4px 0;
  padding: 8px 10px;
  background: var(--gold-pale);
  border-left: 4px solid var(--gold);
}
</style>
