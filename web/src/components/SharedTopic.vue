<script setup lang="ts">
import { computed, ref } from 'vue'
import HandOver from './HandOver.vue'
import ProblemNote from './ProblemNote.vue'
import { useSharedTopic } from '../composables/useSharedTopic'
import { count, shortDay } from '../time'

/** In which other series a topic stands, what became of it there, and one more series to share it with. */
const { topicId, seriesId } = defineProps<{ topicId: string; seriesId: string; mayShare: boolean }>()
const emit = defineEmits<{ leave: [] }>()
const { shared, error, share } = useSharedTopic(() => topicId)
/** Once it is shared the choice has done its work, and what was done stands there. */
const choosing = ref(true)
function shareWith(id: string, title: string) {
  share({ seriesId: id, title })
  choosing.value = false
}
const WORDS = { on: 'to be taken', brought_in: 'brought in', declined: 'not taken up', taken: 'taken' }
const known = computed(() => [seriesId, ...(shared.value?.topics.map(topic => topic.series.id) ?? [])])
</script>

<template>
  <div class="shared small no-print">
    <ProblemNote :error="error" />
    <ul v-if="shared?.topics.length">
      <li v-for="topic in shared.topics" :key="topic.id">
        <router-link :to="`/meetings/${topic.meetingId}`">{{ topic.series.name }}</router-link><span class="soft"
          >: {{ WORDS[topic.state] }}, {{ shortDay(topic.on) }}</span
        >
      </li>
    </ul>
    <p v-if="shared?.notShown" class="soft">In {{ count(shared.notShown, 'series') }} you do not take part in.</p>
    <HandOver
      v-if="mayShare && shared && choosing"
      :except="known"
      verb="Share it"
      @to="shareWith"
      @cancel="emit('leave')"
    />
    <button v-else-if="mayShare && shared" type="button" class="quiet" @click="choosing = true">
      Share it with another series
    </button>
  </div>
</template>

<style scoped>
.shared {
  padding: 4px 0 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
