<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Series } from '../api/client'
import { DOORS } from '../calls'
import { useNotice } from '../composables/useNotice'
import { useSeriesCall } from '../composables/useSeriesCall'
import { now } from '../present'
import { clock, columnDay, mediumDay, wallOf } from '../time'
import CallWords from './CallWords.vue'
import FormDialog from './FormDialog.vue'
import ProblemNote from './ProblemNote.vue'

/** The calls of a series that are made here: their link and door, and who was there. */
const { series } = defineProps<{ series: Series }>()
const { page, presence, error, renew, renewError, isRenewing } = useSeriesCall(() => series.id)
const { say } = useNotice()
const renewing = ref(false)
const form = ref({ note: '' })
async function save() {
  try {
    await renew({ renewal: series.callHere!.renewal, note: form.value.note })
    renewing.value = false
    say('The link is renewed. The earlier one is not in use any more.')
  } catch {
    /* shown in the dialog */
  }
}
const SLOW_MS = 15_000
const takesLong = computed(
  () => !!series.callHere?.makingSince && now() - Date.parse(series.callHere.makingSince) > SLOW_MS,
)
const pages = () => Math.ceil((presence.value?.total ?? 0) / (presence.value?.pageSize ?? 1))
</script>

<template>
  <div class="call-panel">
    <ProblemNote :error="error" />
    <template v-if="series.callHere">
      <p>
        {{ series.callKind === 'fresh' ? 'Fresh: a link for each meeting.' : 'Standing: one link for the whole run.' }}
        {{ DOORS[series.door.policy] }}. Opens {{ series.door.opensMin }} minutes before and stays
        {{ series.door.staysMin }} after.
        <b v-if="series.door.records" class="alarm">Recorded.</b>
      </p>
      <p v-if="series.callHere.makingSince" class="carried strong" role="status">
        {{ series.callHere.renewal ? 'The new link is being made.' : 'The call is being made.' }}
        <template v-if="takesLong"
          >The call service has not answered since {{ clock(wallOf(series.callHere.makingSince, series.timeZone)) }}. It
          is asked again and again; mails that tell of it wait for ten minutes at most.</template
        >
      </p>
      <p v-else-if="series.callHere.plain" class="plain">
        For those without a link of their own<template v-if="series.callKind === 'fresh'"> (next meeting)</template>:
        <CallWords :call="series.callHere.plain" whole />
      </p>
      <p v-if="series.callHere.usableUntil" class="soft small">
        Can be used until {{ mediumDay(wallOf(series.callHere.usableUntil, series.timeZone))
        }}<template v-if="series.callKind === 'standing'"> if nobody uses it before; it is renewed in time</template>.
      </p>
      <p><button type="button" class="quiet" @click="renewing = true">Renew the link …</button></p>
    </template>
    <h3>Who was there</h3>
    <p v-if="presence?.meetings.length === 0" class="soft">Nobody has been in a call of this series yet.</p>
    <table v-for="meeting in presence?.meetings ?? []" :key="meeting.id" class="there">
      <caption>
        <router-link :to="`/meetings/${meeting.id}`">{{ columnDay(meeting.localStart) }}</router-link>
      </caption>
      <tbody>
        <tr v-for="(person, i) in meeting.people" :key="i">
          <th scope="row">{{ person.name }}</th>
          <td>
            <span v-for="(span, j) in person.spans" :key="j"
              >{{ j ? ', ' : '' }}{{ clock(span.from) }}–{{ span.to ? clock(span.to) : 'now' }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="presence?.meetings.length" class="row">
      <button v-if="page > 1" type="button" class="quiet" @click="page--">Later</button>
      <button v-if="page < pages()" type="button" class="quiet" @click="page++">Earlier</button>
      <a :href="`/api/series/${series.id}/presence.csv`" download>As CSV</a>
    </p>
    <FormDialog
      v-model="renewing"
      v-model:form="form"
      title="Renew the link"
      verb="Renew and tell everybody"
      :error="renewError"
      :busy="isRenewing"
      @submit="save"
    >
      <p>
        The link and passcode in use now stop at once, also for those who are in.
        {{
          series.told.state === 'never'
            ? 'Nobody has been told of the old one.'
            : 'Everybody who was told of the series gets the new one now, with whatever else they do not know yet.'
        }}
      </p>
      <v-textarea v-model="form.note" label="A word with it" rows="2" />
    </FormDialog>
  </div>
</template>

<style scoped>
.call-panel > p {
  margin-top: 6px;
}
.plain {
  overflow-wrap: anywhere;
}
h3 {
  margin-top: 16px;
}
.there {
  margin-top: 8px;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 650;
}
th {
  text-align: left;
  font-weight: 400;
  padding-right: 24px;
}
</style>
