<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Sheet } from '../api/client'
import { useMeetingChange, useMeetingCheck } from '../composables/useCommonTime'
import { useNotice } from '../composables/useNotice'
import { usePlaces } from '../composables/usePlaces'
import { clock, list, mediumDay } from '../time'
import { callForm, callOf } from '../calls'
import CallFields from './CallFields.vue'
import FormDialog from './FormDialog.vue'
import LengthField from './LengthField.vue'
import MomentField from './MomentField.vue'
import PlaceFields from './PlaceFields.vue'
import { useFaults } from '../composables/useFaults'

/** This meeting alone: when, how long, where; beside everyone's calendars as it is typed. */
const { sheet } = defineProps<{ sheet: Sheet }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ changed: [] }>()
const { change, changeError, isChanging, reset } = useMeetingChange(() => sheet.id)
const { places } = usePlaces()
const { say } = useNotice()

const current = () => ({
  at: sheet.localStart.slice(0, 16),
  lengthMin: sheet.lengthMin as number | '',
  ownWhere: sheet.own.where,
  where: {
    place: sheet.own.place ?? '',
    placeId: sheet.own.placeId,
    beforeMin: sheet.own.beforeMin,
    afterMin: sheet.own.afterMin,
    placeAnyway: false,
  },
  // Where it is held elsewhere after all, one made here is made for it alone.
  call: callForm(sheet.call, sheet.own.callKind === 'standing' ? 'fresh' : sheet.own.callKind),
})
const form = ref(current())
const tried = ref(false)
watch(
  open,
  shown => {
    if (!shown) return
    reset()
    tried.value = false
    form.value = current()
  },
  { immediate: true },
)

const moved = computed(
  () => form.value.at !== sheet.localStart.slice(0, 16) || form.value.lengthMin !== sheet.lengthMin,
)
const wish = computed(() =>
  open.value && moved.value && form.value.at && form.value.lengthMin !== ''
    ? { localStart: form.value.at, lengthMin: form.value.lengthMin }
    : null,
)
const { check, isChecking } = useMeetingCheck(() => sheet.id, wish)
const { at, rest } = useFaults(changeError, /^\/(localStart|lengthMin|placeId|call\/\w+)$/)
const placeNow = computed(() => places.value?.find(place => place.id === sheet.own.placeId)?.name)

async function save() {
  tried.value = true
  const { at: localStart, lengthMin, ownWhere, where, call } = form.value
  if (!localStart || lengthMin === '') return
  const before = current()
  try {
    const saved = await change({ version: sheet.version, ...wishOf(localStart, lengthMin, ownWhere, where, call) })
    open.value = false
    emit('changed')
    const at = `${mediumDay(saved.localStart)}, ${clock(saved.localStart)}`
    say(`Saved: ${at}. Nobody is told until you send the invitation again.`, () => {
      change({
        version: saved.version,
        ...wishOf(before.at, Number(before.lengthMin), before.ownWhere, before.where, before.call),
      }).then(() => emit('changed'))
    })
  } catch {
    /* shown at the field */
  }
}
function wishOf(
  localStart: string,
  lengthMin: number,
  ownWhere: boolean,
  where: { placeId: string | null; place: string; placeAnyway: boolean },
  call: ReturnType<typeof callForm>,
) {
  return {
    localStart,
    lengthMin,
    ownWhere,
    ...(ownWhere
      ? { placeId: where.placeId, placeAnyway: where.placeAnyway, place: where.place || null, call: callOf(call) }
      : {}),
  }
}
</script>

<template>
  <FormDialog
    v-model="open"
    v-model:form="form"
    :draft="`meeting-${sheet.id}`"
    :title="`Change ${mediumDay(sheet.localStart)}`"
    verb="Save"
    :error="rest"
    :busy="isChanging"
    :width="620"
    @submit="save"
  >
    <div class="when">
      <MomentField
        v-model="form.at"
        :label="`On, ${sheet.zoneCity} time`"
        :time-zone="sheet.timeZone"
        :error-messages="at('/localStart') ?? (tried && !form.at ? 'Give a day and a time.' : undefined)"
      />
      <LengthField
        v-model="form.lengthMin"
        label="Length"
        :error-messages="at('/lengthMin') ?? (tried && form.lengthMin === '' ? 'Give a length.' : undefined)"
      />
    </div>
    <p class="small">
      <router-link :to="{ path: '/asking/new', query: { meeting: sheet.id } }" @click="open = false"
        >Ask people which other time suits them</router-link
      >
    </p>
    <p v-if="moved" class="small check" role="status">
      <template v-if="!check || isChecking"><span class="soft">Looking at everyone's calendars …</span></template>
      <template v-else>
        <span v-if="check.busy.length" class="alarm strong"
          >{{ list(check.busy) }} {{ check.busy.length === 1 ? 'is' : 'are' }} busy then.
        </span>
        <span v-if="check.nearest"
          >The nearest at which all who must come are free:
          <button type="button" class="quiet small" @click="form.at = check.nearest.localStart.slice(0, 16)">
            {{ mediumDay(check.nearest.localStart) }}, {{ clock(check.nearest.localStart) }}</button
          >.
        </span>
        <span v-if="check.outside.length" class="carried">Outside the hours of {{ list(check.outside) }}. </span>
        <span v-if="check.unknown.length" class="carried"
          >Nobody knows whether {{ list(check.unknown) }} {{ check.unknown.length === 1 ? 'is' : 'are' }} free.
        </span>
        <span v-if="!check.busy.length && !check.outside.length && !check.unknown.length" class="fresh strong"
          >Everybody is free then.</span
        >
      </template>
    </p>
    <v-checkbox
      v-model="form.ownWhere"
      :label="`Held elsewhere than the series${placeNow && !sheet.own.where ? ` (${placeNow})` : ''}`"
    />
    <template v-if="form.ownWhere">
      <PlaceFields v-model="form.where" :error="changeError" plain />
      <CallFields v-model="form.call" :error="changeError" single />
    </template>
    <p class="soft small">
      The sheet and its papers go along.<template v-if="moved">
        Answers are asked for again, since the time changes.</template
      >
    </p>
  </FormDialog>
</template>

<style scoped>
.when {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px;
  gap: 12px;
}
@media (max-width: 500px) {
  .when {
    grid-template-columns: 1fr;
  }
}
</style>
