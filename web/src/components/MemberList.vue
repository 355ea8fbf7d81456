<script setup lang="ts">
import type { Series } from '../api/client'
import { zonePlace } from '../time'

/** Who is in a series, how they are asked, and through which group. */
const { series } = defineProps<{ series: Series }>()
const groupName = (groupId: string) => series.groups.find(group => group.id === groupId)?.name ?? ''
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
</script>

<template>
  <ul class="ruled members">
    <li v-for="member in series.members" :key="member.personId" class="row">
      <span class="strong name">{{ member.name }}</span><span
        >{{ ROLES[member.role] }}<template v-if="member.guest">, guest</template
        ><template v-if="member.viaGroupId">, through the group {{ groupName(member.viaGroupId) }}</template></span
      ><span class="soft">{{ zonePlace(member.timeZone) }} time</span>
      <span v-if="member.personId === series.keeper.id" class="soft">keeper</span
      ><span v-if="member.personId === series.chair.id" class="soft">chair</span>
    </li>
  </ul>
</template>

<style scoped>
.members {
  margin-top: 10px !important;
}
.name {
  min-width: 200px;
}
</style>
