<script setup lang="ts">
import type { Series } from '../api/client'
import { useDeputies } from '../composables/useDeputies'
import { zoneCity } from '../time'
import GiveAddress from './GiveAddress.vue'

/** Who is in a series, how they are asked, and through which group. */
const { series } = defineProps<{ series: Series }>()
const groupName = (groupId: string) => series.groups.find(group => group.id === groupId)?.name ?? ''
const { set } = useDeputies()
const mayName = (member: Series['members'][number]) =>
  series.may.change &&
  !member.guest &&
  member.role !== 'informed' &&
  ![series.keeper.id, series.chair.id].includes(member.personId)
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
</script>

<template>
  <ul class="ruled members">
    <li v-for="member in series.members" :key="member.personId" class="row">
      <span class="strong name">{{ member.name }}</span><span
        >{{ ROLES[member.role] }}<template v-if="member.guest">, guest</template
        ><template v-if="member.viaGroupId">, through the group {{ groupName(member.viaGroupId) }}</template></span
      ><span class="soft">{{ zoneCity(member.timeZone) }} time</span>
      <span v-if="!member.reachable" class="carried"
        >no address
        <GiveAddress
          v-if="series.may.change && member.guest"
          :series-id="series.id"
          :person="{ id: member.personId, name: member.name }"
      /></span>
      <span v-if="member.personId === series.keeper.id" class="soft">keeper</span
      ><span v-if="member.personId === series.chair.id" class="soft">chair</span>
      <label v-if="mayName(member)" class="small"
        ><input
          type="checkbox"
          :checked="member.deputy"
          :aria-label="`May write for the keeper: ${member.name}`"
          @change="
            set({
              seriesId: series.id,
              personId: member.personId,
              deputy: ($event.target as HTMLInputElement).checked,
            })
          "
        />
        may write for the keeper</label
      ><span v-else-if="member.deputy" class="soft">may write for the keeper</span>
    </li>
  </ul>
</template>

<style scoped>
.members {
  margin-top: 10px;
}
.name {
  min-width: 200px;
}
</style>
