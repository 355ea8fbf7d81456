<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import HouseName from '../components/HouseName.vue'

/** Where a link to a call leads that cannot lead into it: not in use, or the call is still being made. */
const { soon = false } = defineProps<{ soon?: boolean }>()
const route = useRoute()
const back = computed(() => (/^\/(call|c)\//.test(String(route.query.link)) ? String(route.query.link) : null))
</script>

<template>
  <div class="desk">
    <HouseName />
    <div class="sheet stack">
      <template v-if="soon">
        <h1>The call is being made</h1>
        <p v-if="route.query.title">
          “{{ route.query.title }}” has a call, but it is not ready yet. Try again in a moment.
        </p>
        <p v-if="back"><v-btn :href="back">Try again</v-btn></p>
      </template>
      <template v-else>
        <h1>This link is not in use</h1>
        <p>
          It has been replaced by a newer one, or the meeting is long over. Look for the latest mail about the meeting:
          its link leads in. If you have none, ask whoever invited you to send it once more.
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  max-width: 620px;
}
</style>
