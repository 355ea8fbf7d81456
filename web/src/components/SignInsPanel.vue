<script setup lang="ts">
import { computed, ref } from 'vue'
import { useNotice } from '../composables/useNotice'
import { useSignIns } from '../composables/useSignIns'
import { clock, mediumDay, wallNow } from '../time'
import FormDialog from './FormDialog.vue'
import ProblemNote from './ProblemNote.vue'
import { useFaults } from '../composables/useFaults'

/** Where one is signed in, with a way to end it; and a new password. */
const { timeZone } = defineProps<{ timeZone: string }>()
const { signIns, error, end, endOthers, changePassword, passwordError, isChanging } = useSignIns()
const { say } = useNotice()
const others = computed(() => signIns.value.filter(one => !one.current))
const changing = ref(false)
const old = ref('')
const password = ref('')
const { at, rest } = useFaults(passwordError, /^\/(old|password)$/)
const when = (instant: string) => {
  const local = wallNow(timeZone, new Date(instant))
  return `${mediumDay(local)}, ${clock(local)}`
}

async function save() {
  try {
    await changePassword({ old: old.value, password: password.value })
    changing.value = false
    old.value = password.value = ''
    say('Your password is changed. Everywhere else you are signed out.')
  } catch {
    /* shown at the field */
  }
}
</script>

<template>
  <section aria-labelledby="sign-ins">
    <h2 id="sign-ins">Where you are signed in</h2>
    <ProblemNote :error="error" />
    <ul class="ruled small">
      <li v-for="one in signIns" :key="one.id" class="row spread one">
        <span
          ><b>{{ one.program || 'A program that does not say' }}</b> {{ ' '
          }}<span class="soft">{{
            one.current ? `this browser, since ${when(one.since)}` : `last seen ${when(one.seenAt)}`
          }}</span></span
        >
        <button
          v-if="!one.current"
          type="button"
          class="quiet small"
          :aria-label="`Sign out ${one.program}, last seen ${when(one.seenAt)}`"
          @click="end(one.id)"
        >
          Sign out
        </button>
      </li>
    </ul>
    <p class="row">
      <v-btn variant="outlined" size="small" @click="changing = true">Change password</v-btn>
      <button v-if="others.length" type="button" class="quiet small" @click="endOthers()">
        Sign out everywhere else
      </button>
    </p>
    <FormDialog
      v-model="changing"
      title="Change password"
      verb="Save"
      :error="rest"
      :busy="isChanging"
      :disabled="!old || !password"
      @submit="save"
    >
      <v-text-field
        v-model="old"
        label="Your password now"
        type="password"
        autocomplete="current-password"
        autofocus
        :error-messages="at('/old')"
      />
      <v-text-field
        v-model="password"
        label="New password, at least 12 characters"
        type="password"
        autocomplete="new-password"
        :error-messages="at('/password')"
      />
    </FormDialog>
  </section>
</template>

<style scoped>
.one {
  flex-wrap: nowrap;
  align-items: baseline;
}
.one .quiet {
  flex: none;
}
</style>
