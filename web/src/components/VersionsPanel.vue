<script setup lang="ts">
import type { Sheet } from '../api/client'
import { clock, longDay, mediumDay } from '../time'

/** The versions in which minutes were issued: why each was corrected, what it says otherwise, and if it is approved. */
defineProps<{ sheet: Sheet }>()
</script>

<template>
  <section class="versions no-print" aria-labelledby="versions">
    <h2 id="versions" class="eyebrow">Issued</h2>
    <ol>
      <li v-for="version in sheet.versions" :key="version.number">
        <p class="small">
          <a :href="`/api/meetings/${sheet.id}/minutes.pdf?version=${version.number}`" download
            >Version {{ version.number }}</a
          >, {{ mediumDay(version.localIssuedAt) }} {{ clock(version.localIssuedAt) }}, {{ version.issuedBy }}
        </p>
        <p v-if="version.reason" class="small"><b>Corrected:</b> {{ version.reason }}</p>
        <ul v-if="version.changes.length" class="small">
          <li v-for="(change, i) in version.changes" :key="i">
            <span class="soft">{{ change.place }}:</span>{{ ' ' }}<del v-if="change.before">{{ change.before }}</del
            >{{ ' ' }}<ins v-if="change.after">{{ change.after }}</ins>
          </li>
        </ul>
        <p v-if="version.approvedOn" class="small fresh strong">
          Approved
          <router-link :to="`/meetings/${version.approvedAtMeetingId}`">{{ longDay(version.approvedOn) }}</router-link>
        </p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.versions {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
ol > li {
  padding: 4px 0;
}
del {
  color: var(--soft);
}
ins {
  text-decoration: none;
  font-weight: 650;
}
</style>
