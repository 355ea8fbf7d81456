<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useSession } from '../composables/useSession'

/** To one's own page, by a name that is the same for everybody. */
const { person } = useSession()
useRouter().replace(`/people/${person.value!.id}`)
</script>

<template>
  <div class="desk" />
</template>
