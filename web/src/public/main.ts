import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/figtree'
import './public.css'
import { createApp } from 'vue'
import PublicApp from './PublicApp.vue'

// The pages for people without an account: an application of their own, small enough for a telephone on the road.
createApp(PublicApp).mount('#app')
