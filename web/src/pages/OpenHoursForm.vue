<script setup lang="ts">
import { v7 as newKey } from 'uuid'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ProblemError, type Schemas } from '../api/client'
import { CALLS } from '../asking'
import DateField from '../components/DateField.vue'
import HostList from '../components/HostList.vue'
import PlaceFields from '../components/PlaceFields.vue'
import ProblemNote from '../components/ProblemNote.vue'
import QuestionList from '../components/QuestionList.vue'
import ZoneField from '../components/ZoneField.vue'
import { useDraft } from '../composables/useDraft'
import { useNotice } from '../composables/useNotice'
import { useOpenHours } from '../composables/useOpenHours'
import { usePeople } from '../composables/usePeople'
import { useSeriesList } from '../composables/useSeries'
import { useSession } from '../composables/useSession'
import { emptyOpenHours, formOfOpenHours, GAPS, MODES, NOTICES, STEPS, type OpenHoursForm } from '../openHours'
import { useFaults } from '../composables/useFaults'

/** What is on offer: with whom, when, how long, to whom. */
const { id = '' } = defineProps<{ id?: string }>()
const { person: me } = useSession()
const { people } = usePeople()
const { series } = useSeriesList()
const { open, error, make, change, saveError, isSaving } = useOpenHours(() => id)
const { say } = useNotice()
const router = useRouter()
const key = newKey()
const { draft: form, forget } = useDraft<OpenHoursForm>(`open-hours${id}`, () =>
  emptyOpenHours(me.value!.timeZone, me.value!.id),
)
const version = ref(0)
watch(
  open,
  found => {
    if (!found || version.value) return
    version.value = found.version + 1
    if (form.value.title === '') form.value = formOfOpenHours(found)
  },
  { immediate: true },
)
const FIELDS = /^\/(title|lengths|likeId|timeZone|fromOn|untilOn|daysAhead|most\w+|alwaysIds|call\/kind)$/
const WITHIN = /^\/(hosts|onlyFrom|neverFrom|frames)(\/|$)|^\/questions\/\d+$/
const { at, rest: unplaced } = useFaults(saveError, new RegExp(`${FIELDS.source}|${WITHIN.source}`))
const within = (pointer: string) => {
  const { value: fault } = saveError
  const found = fault instanceof ProblemError ? fault.problem.errors : undefined
  return found?.find(one => one.pointer.startsWith(pointer))?.detail
}
const tried = ref(false)
const titleFault = computed(() => (tried.value && !form.value.title.trim() ? 'Give it a title.' : at('/title')))
const lengths = ref('')
const LENGTHS = [15, 20, 30, 45, 60, 90].map(value => ({ value, title: `${value} minutes` }))
const usual = computed(() =>
  Object.fromEntries(
    (open.value?.hosts ?? []).flatMap(one => (one.workingHours ? [[one.personId, one.workingHours]] : [])),
  ),
)
const asked = computed(() => (open.value?.hosts ?? []).filter(one => !one.agreed).map(one => one.personId))
const names = computed(() => (people.value ?? []).map(person => ({ value: person.id, title: person.name })))
const likes = computed(() => (series.value ?? []).map(one => ({ value: one.id, title: one.title })))
const numberOrNull = (value: unknown) => (value === '' || value === null || value === undefined ? null : Number(value))

async function save() {
  tried.value = true
  if (!form.value.title.trim()) return
  const { mostPerDay, mostPerWeek, mostPerVisitor, daysAhead, words, afterWords, place, fromOn, untilOn, ...rest } =
    form.value
  const wish = {
    ...rest,
    words: words || null,
    afterWords: afterWords || null,
    place: place || null,
    fromOn: fromOn || null,
    untilOn: untilOn || null,
    mostPerDay: numberOrNull(mostPerDay),
    mostPerWeek: numberOrNull(mostPerWeek),
    mostPerVisitor: numberOrNull(mostPerVisitor),
    daysAhead: numberOrNull(daysAhead),
  } satisfies Schemas['ChangedOpenHours']
  try {
    const saved = id ? await change({ ...wish, version: open.value!.version }) : await make({ ...wish, id: key })
    forget()
    say('Saved. Visitors see it so from now on.')
    router.push(`/open-hours/${saved.id}`)
  } catch {
    /* shown at the fields */
  }
}
</script>

<template>
  <div class="desk">
    <p class="eyebrow"><router-link to="/open-hours">Open hours</router-link></p>
    <h1>{{ id ? (open?.title ?? '…') : 'New open hours' }}</h1>
    <ProblemNote :error="error" />
    <form class="two page" novalidate @submit.prevent="save">
      <div class="stack">
        <section class="sheet stack" aria-labelledby="what">
          <h2 id="what">What visitors see</h2>
          <v-text-field v-model="form.title" label="Title" autofocus :error-messages="titleFault" />
          <v-textarea v-model="form.words" label="A few words about it (optional)" rows="1" />
          <div class="fields">
            <v-combobox
              v-model="form.lengths"
              v-model:search="lengths"
              :items="LENGTHS"
              :return-object="false"
              multiple
              chips
              closable-chips
              label="Lengths on offer, minutes"
              :error-messages="at('/lengths')"
              class="across"
              @update:model-value="all => (form.lengths = all.map(Number).filter(one => one >= 5 && one <= 720))"
            />
            <v-select v-model="form.callKind" :items="CALLS" label="Call" :error-messages="at('/call/kind')" />
            <v-autocomplete
              v-model="form.likeId"
              :items="likes"
              clearable
              class="across"
              label="Begins with the standing agenda of"
              :error-messages="at('/likeId')"
            />
          </div>
          <PlaceFields v-model="form" plain :error="saveError" />
          <v-textarea
            v-model="form.afterWords"
            label="Shown after booking, such as how to find you (optional)"
            rows="1"
          />
        </section>
        <section class="sheet stack" aria-labelledby="hosts">
          <h2 id="hosts">With whom, and when</h2>
          <v-select v-if="form.hosts.length > 1" v-model="form.mode" :items="MODES" label="A time is with" />
          <HostList
            v-model="form.hosts"
            :people="people ?? []"
            :at="within"
            :usual="usual"
            :turns="form.mode === 'turns'"
            :asked="asked"
            :me="me!.id"
          />
        </section>
        <section class="sheet stack" aria-labelledby="asks">
          <h2 id="asks">What visitors are asked</h2>
          <p class="small soft">Name and mail address are asked of everybody.</p>
          <QuestionList v-model="form.questions" :fault="i => at(`/questions/${i}`)" />
        </section>
      </div>
      <div class="stack">
        <section class="sheet" aria-labelledby="limits">
          <h2 id="limits" class="gap">Limits</h2>
          <div class="fields">
            <v-select v-model="form.stepMin" :items="STEPS" label="Starts" />
            <v-select v-model="form.noticeMin" :items="NOTICES" label="Shortest notice" />
            <v-select v-model="form.beforeMin" :items="GAPS" label="Gap before" />
            <v-select v-model="form.afterMin" :items="GAPS" label="Gap after" />
            <v-text-field
              v-model.number="form.daysAhead"
              type="number"
              min="1"
              max="366"
              label="Days ahead"
              :error-messages="at('/daysAhead')"
            />
            <ZoneField v-model="form.timeZone" :error-messages="at('/timeZone')" />
            <DateField v-model="form.fromOn!" label="Not before" :error-messages="at('/fromOn')" />
            <DateField v-model="form.untilOn!" label="Not after" :error-messages="at('/untilOn')" />
            <v-text-field
              v-model.number="form.mostPerDay"
              type="number"
              min="1"
              label="Most a day"
              :error-messages="at('/mostPerDay')"
            />
            <v-text-field
              v-model.number="form.mostPerWeek"
              type="number"
              min="1"
              label="Most a week"
              :error-messages="at('/mostPerWeek')"
            />
            <v-text-field
              v-model.number="form.mostPerVisitor"
              type="number"
              min="1"
              label="Most for one visitor"
              :error-messages="at('/mostPerVisitor')"
            />
          </div>
        </section>
        <section class="sheet stack" aria-labelledby="who">
          <h2 id="who">To whom</h2>
          <v-combobox
            v-model="form.onlyFrom"
            multiple
            chips
            closable-chips
            label="Only from these addresses or domains"
            hint="empty: everybody"
            :error-messages="within('/onlyFrom')"
          />
          <v-combobox
            v-model="form.neverFrom"
            multiple
            chips
            closable-chips
            label="Never from these"
            :error-messages="within('/neverFrom')"
          />
          <v-autocomplete
            v-model="form.alwaysIds"
            :items="names"
            multiple
            chips
            closable-chips
            label="Always invited, and not waited for"
            :error-messages="at('/alwaysIds')"
          />
          <v-checkbox v-model="form.proof" label="Confirm the address by mail first; the time is held for 15 minutes" />
          <v-checkbox v-model="form.listed" label="Listed on the public page of each host" />
        </section>
        <section class="sheet stack" aria-labelledby="calendars">
          <h2 id="calendars">What counts, and pages</h2>
          <v-checkbox v-model="form.tentativeFree" label="Offer what is tentatively taken, too" />
          <v-combobox
            v-model="form.frames"
            multiple
            chips
            closable-chips
            label="May be set into pages at"
            hint="such as https://www.port.example"
            persistent-hint
            :error-messages="within('/frames')"
          />
          <v-checkbox v-model="form.paused" label="Paused: nothing can be booked" />
        </section>
        <section class="sheet stack save" aria-label="Save">
          <ProblemNote :error="unplaced" />
          <div class="row">
            <v-btn type="submit" size="large" :loading="isSaving">Save</v-btn>
            <v-btn variant="text" :to="id ? `/open-hours/${id}` : '/open-hours'" @click="forget()">Cancel</v-btn>
          </div>
        </section>
      </div>
    </form>
  </div>
</template>

<style scoped>
.page {
  margin-top: 14px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 12px;
  align-items: start;
}
.across {
  grid-column: 1 / -1;
}
.gap {
  margin-bottom: 12px;
}
.save {
  border-left: 4px solid var(--gold);
}
</style>
