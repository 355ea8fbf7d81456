<script setup lang="ts">
import type { Sheet } from '../api/client'
import { mediumDay } from '../time'

/** Minutes of the meetings before, for this one to approve. */
defineProps<{ sheet: Sheet }>()
defineEmits<{ approve: [meetingId: string, approved: boolean] }>()

const labelOf = (one: Sheet['toApprove'][number]) =>
  `${one.approved ? 'Not approved after all' : 'Approve'}: minutes of ${mediumDay(one.localStart)}`
</script>

<template>
  <section class="approvals no-print" aria-labelledby="approvals">
    <h2 id="approvals" class="eyebrow">Earlier minutes</h2>
    <ul>
      <li v-for="one in sheet.toApprove" :key="one.id" class="row spread small">
        <router-link :to="`/meetings/${one.id}`"
          >{{ mediumDay(one.localStart) }}<template v-if="one.corrected">, as corrected</template></router-link
        >
        <template v-if="sheet.may.hold">
          <span v-if="one.approved" class="fresh strong">approved</span>
          <button
            type="button"
            class="quiet"
            :aria-label="labelOf(one)"
            @click="$emit('approve', one.id, !one.approved)"
          >
            {{ one.approved ? 'Undo' : 'Approve' }}
          </button>
        </template>
        <span v-else class="soft">{{ one.approved ? 'approved' : 'not approved yet' }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.approvals {
  margin-top: 16px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
</style>
