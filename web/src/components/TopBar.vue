<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useTheme } from 'vuetify'
import type { Person } from '../api/client'
import { useKeys } from '../composables/useKeys'
import { useSession } from '../composables/useSession'
import { useUnsent } from '../composables/useUnsent'
import { keepTheme } from '../theme'
import { count, zoneCity } from '../time'
import FormDialog from './FormDialog.vue'
import GoTo from './GoTo.vue'
import KeyHelp from './KeyHelp.vue'
import Mark from './Mark.vue'

const { person } = defineProps<{ person: Person }>()

const PAGES = [
  { to: '/', name: 'Desk' },
  { to: '/series', name: 'Series' },
  { to: '/common-time', name: 'Common time' },
  { to: '/actions', name: 'Actions' },
  { to: '/people', name: 'People & places' },
]
const { signOut } = useSession()
const { allUnsent } = useUnsent()
const route = useRoute()
const theme = useTheme()
const going = ref(false)
const helping = ref(false)
const leaving = ref(false)
const isDark = computed(() => theme.global.name.value === 'dark')
const initials = computed(() =>
  person.name
    .split(' ')
    .map(word => word[0])
    .filter((_, i, all) => i === 0 || i === all.length - 1)
    .join(''),
)
function leave() {
  if (allUnsent.value.length) leaving.value = true
  else signOut()
}
const isHere = (to: string) =>
  to === '/'
    ? route.path === '/'
    : route.path.startsWith(to) ||
      (to === '/series' && route.path.startsWith('/meetings')) ||
      (to === '/common-time' && /^\/(asking|open-hours)/.test(route.path)) ||
      (to === '/people' && route.path.startsWith('/places'))

useKeys([
  {
    key: '/',
    label: 'Go to or do…',
    run: () => {
      going.value = true
    },
  },
  {
    key: '?',
    label: 'These keys',
    run: () => {
      helping.value = true
    },
  },
])
</script>

<template>
  <header class="bar no-print">
    <router-link class="name" to="/" aria-label="Left Over, to the Desk"><Mark /><span>Left Over</span></router-link>
    <nav aria-label="Pages">
      <router-link
        v-for="page in PAGES"
        :key="page.to"
        :to="page.to"
        :class="{ here: isHere(page.to) }"
        :aria-current="isHere(page.to) ? 'page' : undefined"
        >{{ page.name }}</router-link
      >
    </nav>
    <button class="go" type="button" @click="going = true">Go to or do… <kbd>/</kbd></button>
    <v-menu>
      <template #activator="{ props: menu }">
        <button class="me" type="button" :aria-label="`${initials}: ${person.name}, your menu`" v-bind="menu">
          {{ initials }}
        </button>
      </template>
      <v-list density="compact" aria-label="You">
        <v-list-item :title="person.name" :subtitle="`${person.email} · ${zoneCity(person.timeZone)} time`" />
        <v-list-item title="My hours and calendars" :to="`/people/${person.id}`" />
        <v-list-item :title="isDark ? 'Light paper' : 'Dark paper'" @click="keepTheme(isDark ? 'light' : 'dark')" />
        <v-list-item title="Keys" @click="helping = true" />
        <v-list-item title="Sign out" @click="leave" />
      </v-list>
    </v-menu>
    <GoTo v-model="going" @help="helping = true" />
    <KeyHelp v-model="helping" />
    <FormDialog v-model="leaving" title="Sign out?" verb="Sign out" @submit="signOut()">
      <p>
        {{ count(allUnsent.length, 'change') }} could not be sent yet. It stays in this browser, and goes when you sign
        in here again.
      </p>
    </FormDialog>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 26px;
  height: 52px;
  padding: 0 28px;
  border-bottom: 1px solid var(--line);
}
.name {
  display: flex;
  align-items: center;
  gap: 10px;
  font:
    650 1.4286rem 'Bricolage Grotesque Variable',
    sans-serif;
  color: var(--ink);
  text-decoration: none;
}
nav {
  display: flex;
  gap: 26px;
  flex: 1;
  align-self: stretch;
}
nav a {
  display: flex;
  align-items: center;
  white-space: nowrap;
  color: var(--soft);
  font-weight: 550;
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
}
nav a.here {
  color: var(--ink);
  border-bottom-color: var(--pine);
}
.go {
  display: flex;
  justify-content: space-between;
  align-items: center;
  flex: 0 1 210px;
  height: 34px;
  padding: 0 12px;
  overflow: hidden;
  white-space: nowrap;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--soft);
  font: inherit;
  cursor: pointer;
}
.me {
  width: 30px;
  height: 30px;
  border: 0;
  border-radius: 8px;
  background: var(--pine);
  color: rgb(var(--v-theme-on-primary));
  font:
    700 0.8571rem 'Figtree Variable',
    sans-serif;
  cursor: pointer;
}
@media (max-width: 1020px) {
  .bar,
  nav {
    gap: 16px;
  }
}
@media (max-width: 860px) {
  .bar {
    flex-wrap: wrap;
    height: auto;
    gap: 0 12px;
    padding: 6px 14px 0;
  }
  .name {
    flex: 1;
  }
  nav {
    order: 3;
    flex: 0 0 100%;
    gap: 10px;
    height: 38px;
    overflow-x: auto;
    font-size: 0.9286rem;
    scrollbar-width: none;
  }
  .go {
    flex: 0 0 40px;
    font-size: 0;
  }
  .go kbd {
    font-size: 0.8571rem;
  }
}
</style>
