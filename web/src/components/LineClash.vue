<script setup lang="ts">
import type { Line } from '../api/client'

/** Two people have written the same line: both texts stand until one of them chooses. */
defineProps<{ mine: string; theirs: Line | null }>()
defineEmits<{ settle: [how: 'theirs' | 'mine' | 'both'] }>()
</script>

<template>
  <div class="clash" role="group" aria-label="Changed by somebody else meanwhile">
    <p class="alarm strong small">
      {{ theirs ? 'Somebody else has changed this line meanwhile.' : 'Somebody else has removed this line meanwhile.' }}
    </p>
    <dl>
      <template v-if="theirs"
        ><dt>Theirs</dt>
        <dd>{{ theirs.text }}</dd></template
      >
      <dt>Mine</dt>
      <dd>{{ mine }}</dd>
    </dl>
    <p class="row">
      <button type="button" class="quiet" @click="$emit('settle', 'theirs')">
        {{ theirs ? 'Keep theirs' : 'Let it go' }}
      </button>
      <button type="button" class="quiet" @click="$emit('settle', 'mine')">Keep mine</button>
      <button v-if="theirs" type="button" class="quiet" @click="$emit('settle', 'both')">Keep both</button>
    </p>
  </div>
</template>

<style scoped>
.clash {
  padding: 8px 12px;
  border-left: 3px solid var(--alarm);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 12px;
  margin: 6px 0;
}
dt {
  font-weight: 650;
  color: var(--soft);
}
dd {
  margin: 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
