<script setup lang="ts">
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { v7 as newKey } from 'uuid'
import { type Person } from '../api/client'
import FormDialog from '../components/FormDialog.vue'
import GroupsPanel from '../components/GroupsPanel.vue'
import PeopleImport from '../components/PeopleImport.vue'
import PlacesPanel from '../components/PlacesPanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import SetAside from '../components/SetAside.vue'
import { useIncomingMails } from '../composables/useAnswers'
import { useNotice } from '../composables/useNotice'
import { usePeople } from '../composables/usePeople'
import { useSession } from '../composables/useSession'
import { inviteToSignIn } from '../composables/useSignIns'
import { count, zoneCity } from '../time'
import ZoneField from '../components/ZoneField.vue'
import { useFaults } from '../composables/useFaults'

const { person: me } = useSession()
const { people, error, add, change, saveError, isSaving, resetErrors } = usePeople()
const { say, complain } = useNotice()
const TABS = ['People', 'Groups', 'Places'] as const
const route = useRoute()
const tab = ref<(typeof TABS)[number]>(TABS.find(name => name.toLowerCase() === route.query.show) ?? 'People')
const importing = ref(false)
const { mails, dismiss } = useIncomingMails(() => !!me.value?.admin)
const open = ref(false)
const editing = ref<Person | null>(null)
const form = ref({ id: '', name: '', email: '', timeZone: '', password: '', invite: true })
const { at, rest } = useFaults(saveError, /^\/(name|email|timeZone|password)$/)

function edit(person: Person | null) {
  resetErrors()
  editing.value = person
  form.value = {
    id: person?.id ?? newKey(),
    name: person?.name ?? '',
    email: person?.email ?? '',
    timeZone: person?.timeZone ?? me.value!.timeZone,
    password: '',
    invite: true,
  }
  open.value = true
}

// Come here to do something.
if (route.query.do === 'add' && tab.value === 'People' && me.value?.admin) edit(null)
if (route.query.do === 'import' && me.value?.admin) importing.value = true
const adds = route.query.do === 'add'

async function save() {
  const { id, password, invite, ...rest } = form.value
  const body = password ? { ...rest, password } : rest
  try {
    if (editing.value) await change({ id, version: editing.value.version, ...body })
    else await add({ id, ...rest, invite })
    open.value = false
    const go = editing.value ? undefined : { label: 'Hours and calendars', to: `/people/${id}` }
    say(
      !editing.value && invite
        ? `${rest.name} is added, and mailed a link to sign in.`
        : editing.value
          ? `${rest.name} is saved.`
          : `${rest.name} is added.`,
      undefined,
      go,
    )
  } catch {
    /* shown at the field */
  }
}

async function invite(person: Person) {
  try {
    await inviteToSignIn(person.id)
    say(`${person.name} is mailed a link to sign in, good for three days.`)
  } catch (fault) {
    complain(fault as Error)
  }
}
</script>

<template>
  <div class="desk">
    <div class="row spread list-head">
      <h1>People &amp; places</h1>
      <div class="row tabs" role="group" aria-label="Show">
        <button
          v-for="name in TABS"
          :key="name"
          class="quiet"
          :class="{ on: tab === name }"
          :aria-pressed="tab === name"
          @click="tab = name"
        >
          {{ name }}
        </button>
      </div>
    </div>
    <ProblemNote :error="error" />
    <section v-if="people && tab === 'Groups'" class="sheet">
      <GroupsPanel :people="people" :may-keep="!!me?.admin" :adding="adds" />
    </section>
    <section v-if="people && tab === 'Places'" class="sheet">
      <PlacesPanel :people="people" :may-keep="!!me?.admin" :time-zone="me!.timeZone" :adding="adds" />
    </section>
    <section v-if="people && tab === 'People'" class="sheet">
      <div class="row spread">
        <p class="eyebrow">{{ count(people.length, 'person') }}</p>
        <span class="row"
          ><a class="small" href="/api/people-vcards" download="people.vcf">All as vCards</a
          ><template v-if="me?.admin"
            ><button class="quiet small" @click="importing = true">Import</button
            ><v-btn size="small" @click="edit(null)">Add a person</v-btn></template
          ></span
        >
      </div>
      <ul class="ruled">
        <li v-for="person in people" :key="person.id" class="line">
          <router-link class="strong" :to="`/people/${person.id}`">{{ person.name }}</router-link>
          <span class="mail">{{ person.email }}</span>
          <span class="soft">{{ zoneCity(person.timeZone) }} time</span>
          <span class="soft small"
            >{{ person.admin ? 'looks after people' : person.canSignIn ? '' : 'cannot sign in yet' }}
            <button
              v-if="me?.admin && !person.canSignIn"
              class="quiet small"
              :aria-label="`Invite ${person.name} to sign in`"
              @click="invite(person)"
            >
              Invite
            </button></span
          >
          <button v-if="me?.admin" class="quiet" :aria-label="`Edit ${person.name}`" @click="edit(person)">Edit</button>
        </li>
      </ul>
    </section>
    <section v-if="mails.length" class="sheet mails" aria-labelledby="mails">
      <h2 id="mails">Mail that could not be read</h2>
      <ul class="ruled small">
        <li v-for="mail in mails" :key="mail.id">
          {{ mail.sender }}: “{{ mail.subject }}” <span class="alarm">{{ mail.remark }}</span> {{ ' '
          }}<button type="button" class="quiet small" @click="dismiss(mail.id)">Dismiss</button>
        </li>
      </ul>
    </section>
    <SetAside class="mails" :enabled="!!me?.admin" />
    <PeopleImport v-model="importing" :time-zone="me!.timeZone" />
    <FormDialog
      v-model="open"
      v-model:form="form"
      :draft="`person-${editing?.id ?? 'new'}`"
      :title="editing ? editing.name : 'Add a person'"
      :verb="editing ? 'Save' : 'Add'"
      :error="rest"
      :busy="isSaving"
      @submit="save"
    >
      <v-text-field v-model="form.name" label="Name" autofocus :error-messages="at('/name')" />
      <v-text-field v-model="form.email" label="Mail address" type="email" :error-messages="at('/email')" />
      <ZoneField v-model="form.timeZone" :error-messages="at('/timeZone')" />
      <v-checkbox v-if="!editing" v-model="form.invite" label="Mail them a link to sign in" />
      <v-text-field
        v-else
        v-model="form.password"
        label="New password, if it should change"
        type="password"
        autocomplete="new-password"
        :error-messages="at('/password')"
      />
    </FormDialog>
  </div>
</template>

<style scoped>
.mails {
  margin-top: 16px;
}
.tabs .quiet {
  color: var(--soft);
}
.tabs .on {
  color: var(--pine);
  font-weight: 700;
}
.line {
  display: grid;
  grid-template-columns: 1.3fr 1.6fr 1fr 1fr auto;
  gap: 16px;
  align-items: baseline;
}
.mail {
  overflow-wrap: anywhere;
}
@media (max-width: 860px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  .line .quiet {
    justify-self: start;
  }
}
</style>
