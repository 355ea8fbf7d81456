import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/figtree'
import 'vuetify/styles'
import './styles/base.css'
import { VueQueryPlugin, QueryClient } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { ProblemError } from './api/client'
import { keepProgram } from './composables/useUpdate'
import { keepFocus } from './keptFocus'
import { router } from './router'
import { vuetify } from './theme'

const queryClient = new QueryClient({
  defaultOptions: {
    // Without a connection a deed fails with a word, rather than waiting unseen until there is one.
    mutations: { networkMode: 'always' },
    queries: { staleTime: 5_000, retry: (tries, error) => error instanceof ProblemError && error.passing && tries < 3 },
  },
})

keepFocus()
createApp(App).use(vuetify).use(router).use(VueQueryPlugin, { queryClient }).mount('#app')
// What is kept for later does not hold up what is wanted now.
const later = window.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 2_000))
addEventListener('load', () => later(() => void keepProgram()))
