<script setup lang="ts">
import { computed } from 'vue'
import { useLinkInvitations, type LinkPath } from '../composables/useAnswerLink'
import { count, mediumDay, wallNow } from '../time'

/** All else a guest is invited to, behind the same link. */
const { path, here } = defineProps<{ path: LinkPath; here: string }>()
const { series } = useLinkInvitations(() => path)
const others = computed(() => series.value?.filter(one => one.id !== here) ?? [])
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
</script>

<template>
  <section v-if="others.length" aria-labelledby="invited-to">
    <h2 id="invited-to">All else you are invited to</h2>
    <ul class="ruled">
      <li v-for="one in others" :key="one.id" class="line">
        <a :href="one.path" class="strong">{{ one.title }}</a>
        <span class="small soft">
          {{
            [
              one.nextStart ? `next on ${mediumDay(wallNow(zone, new Date(one.nextStart)))}` : 'nothing to come',
              `kept by ${one.keeper}`,
              one.openTotal ? `${count(one.openTotal, 'meeting')} to answer` : '',
            ]
              .filter(Boolean)
              .join(' · ')
          }}
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.line {
  display: grid;
  gap: 2px;
  padding: 8px 0;
}
</style>
