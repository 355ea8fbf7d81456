<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useHosting } from '../composables/useOpenHours'
import { useNotice } from '../composables/useNotice'

/** Whether one is a host of somebody's open hours, and which of one's own calendars count there. */
const { open } = defineProps<{ open: Schemas['OpenHoursList']['openHours'][number] }>()
const { agree, leave } = useHosting()
const { say, complain } = useNotice()
const hosting = computed(() => open.hosting!)
const calendars = computed(() => hosting.value.calendars.map(one => ({ value: one.id, title: one.name })))
const out = computed(() => hosting.value.calendars.filter(one => one.out).map(one => one.id))

async function set(calendarsOut: string[], said: string) {
  try {
    await agree({ id: hosting.value.id, calendarsOut })
    say(said)
  } catch (fault) {
    complain(fault as Error)
  }
}
async function no() {
  try {
    await leave(hosting.value.id)
    say(
      hosting.value.agreed
        ? `You are no longer a host of ${open.title}.`
        : `${open.keeper} hears that you do not want to.`,
    )
  } catch (fault) {
    complain(fault as Error)
  }
}
</script>

<template>
  <div class="hosting small">
    <template v-if="!hosting.agreed">
      <p>
        <b>{{ open.keeper }}</b> asks you to be a host. Once you agree, others can book times with you here when you are
        free; until then nothing of yours is shown.
      </p>
      <p class="row">
        <v-btn size="small" @click="set([], `You are a host of ${open.title} now.`)">Agree</v-btn>
        <v-btn size="small" variant="text" @click="no">No</v-btn>
      </p>
    </template>
    <template v-else>
      <v-autocomplete
        v-if="calendars.length"
        :model-value="out"
        :items="calendars"
        multiple
        chips
        closable-chips
        density="compact"
        :label="`Your calendars that do not count for ${open.title}`"
        class="calendars"
        @update:model-value="ids => set(ids, 'Saved. It counts from now on.')"
      />
      <button v-if="!open.mine" type="button" class="quiet" :aria-label="`Leave ${open.title}`" @click="no">
        Leave
      </button>
    </template>
  </div>
</template>

<style scoped>
.hosting {
  grid-column: 1 / -1;
  justify-self: stretch;
  display: grid;
  gap: 6px;
  justify-items: start;
}
.calendars {
  width: min(460px, 100%);
}
</style>
