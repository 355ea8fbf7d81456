<script setup lang="ts">
import HostingRow from '../components/HostingRow.vue'
import PageComing from '../components/PageComing.vue'
import { useCopy } from '../composables/useCopy'
import { useKeys } from '../composables/useKeys'
import { useOpenHoursList } from '../composables/useOpenHours'
import { useRemoval } from '../composables/useRemoval'
import { lengthWords } from '../reading'
import { router } from '../router'
import { list as words } from '../time'

/** The hours one lets others book. */
const { list, error } = useOpenHoursList()
const { isThere } = useRemoval()
const copy = useCopy()
useKeys([{ key: 'n', label: 'New open hours', run: () => void router.push('/open-hours/new') }])
const address = (path: string) => `${location.origin}${path}`
</script>

<template>
  <div class="desk">
    <div class="row spread list-head">
      <h1>Open hours</h1>
      <v-btn to="/open-hours/new">New open hours</v-btn>
    </div>
    <PageComing v-if="!list" name="Open hours" :error="error" />
    <div v-else class="sheet stack">
      <ul v-if="list.openHours.length" class="ruled">
        <li v-for="one in list.openHours.filter(isThere)" :key="one.id" class="line">
          <router-link v-if="one.mine" class="strong" :to="`/open-hours/${one.id}`">{{ one.title }}</router-link>
          <span v-else class="strong">{{ one.title }}</span>
          <span class="soft small"
            >{{ words(one.lengths.map(lengthWords)) }} · {{ words(one.hosts) }} · {{ one.coming }} booked<b
              v-if="one.paused"
              class="carried"
            >
              · paused</b
            ></span
          >
          <button
            type="button"
            class="quiet"
            :aria-label="`Copy the link of ${one.title}`"
            @click="copy(address(one.path), 'The link is copied.')"
          >
            Copy the link
          </button>
          <HostingRow v-if="one.hosting" :open="one" />
        </li>
      </ul>
      <p v-else>
        Let others find their own time: give them a link to the hours in which you can be booked. Only what is free at
        that moment is offered.
      </p>
      <p v-if="list.hostPath" class="small">
        What you have listed stands on <a :href="list.hostPath">your public page</a>.
      </p>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr) auto;
  gap: 4px 16px;
  align-items: baseline;
}
@media (max-width: 760px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
    justify-items: start;
  }
}
</style>
