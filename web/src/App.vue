<script setup lang="ts">
import { defineAsyncComponent } from 'vue'
import FootNotice from './components/FootNotice.vue'
import SignInAgain from './components/SignInAgain.vue'
import TopBar from './components/TopBar.vue'
import UpdateOffer from './components/UpdateOffer.vue'
import { useSession } from './composables/useSession'

const SetUp = defineAsyncComponent(() => import('./pages/SetUp.vue'))
const SignIn = defineAsyncComponent(() => import('./pages/SignIn.vue'))
const { session, person, error, readAgain } = useSession()
</script>

<template>
  <v-app>
    <main v-if="session && $route.meta.open"><router-view /></main>
    <template v-else-if="person">
      <a class="skip no-print" href="#main">To the content</a>
      <UpdateOffer />
      <TopBar :person="person" />
      <SignInAgain :person="person" />
      <main id="main" tabindex="-1"><router-view :key="$route.path" /></main>
    </template>
    <main v-else-if="session?.needsSetUp"><SetUp /></main>
    <main v-else-if="session"><SignIn /></main>
    <main v-else-if="error" class="desk">
      <div class="sheet stack" role="alert">
        <h1>Left Over does not answer</h1>
        <p>{{ error.message }}</p>
        <v-btn @click="readAgain()">Try again</v-btn>
      </div>
    </main>
    <FootNotice />
  </v-app>
</template>

<style scoped>
.skip {
  position: absolute;
  left: -999px;
  top: 0;
  background: var(--sheet);
  padding: 8px 14px;
  z-index: 10;
}
.skip:focus {
  left: 8px;
  top: 8px;
}
main:focus {
  outline: none;
}
</style>
