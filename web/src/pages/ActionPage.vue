<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as newKey } from 'uuid'
import { ProblemError } from '../api/client'
import HouseName from '../components/HouseName.vue'
import NotYou from '../components/NotYou.vue'
import ProblemNote from '../components/ProblemNote.vue'
import { useActionLink } from '../composables/useActions'
import { useDraft } from '../composables/useDraft'
import { mediumDay, shortDay } from '../time'
import { useTitle } from '../composables/useTitle'

/** One action, for its owner without an account. Opening it changes nothing; each deed is a press. */
const { id, personId, token } = defineProps<{ id: string; personId: string; token: string }>()
const { action, error, say, sayError, isSaying } = useActionLink(() => ({ id, personId, token }))
useTitle(() => action.value?.text, true)
const isGone = computed(() => error.value instanceof ProblemError && error.value.status === 404)
const { draft: text, forget } = useDraft(`action-link-${id}`, () => '')
const said = ref('')

async function send(state: 'open' | 'done', delayed: boolean, words: string) {
  said.value = ''
  try {
    await say({ id: newKey(), state, text: text.value.trim() || null, delayed })
    forget()
    said.value = words
  } catch {
    /* shown below */
  }
}
</script>

<template>
  <div class="page">
    <HouseName />
    <section v-if="action" class="sheet stack">
      <p class="eyebrow">{{ action.seriesTitle }}</p>
      <h1 :class="{ over: action.state !== 'open' }">{{ action.text }}</h1>
      <p class="soft">
        {{ action.owners.join(', ') }} · since {{ mediumDay(action.raisedOn)
        }}<template v-if="action.dueOn"> · due {{ mediumDay(action.dueOn) }}</template>
      </p>
      <p v-if="action.state === 'dropped' || action.state === 'handed_over'" class="strong">
        {{ action.reason }}. Nothing is asked of you any more.
      </p>
      <form v-else class="stack" novalidate @submit.prevent="send('open', false, 'Saved. It stands on the sheet.')">
        <template v-if="action.state === 'open'">
          <v-textarea v-model="text" label="How it goes" rows="3" maxlength="500" />
          <div class="deeds">
            <v-btn type="submit" :loading="isSaying" :disabled="!text.trim()">Save</v-btn>
            <v-btn variant="outlined" @click="send('done', false, 'It is done.')">It is done</v-btn>
            <v-btn variant="outlined" @click="send('open', true, 'Saved. The keeper sees it on the sheet.')"
              >It will not be done by {{ action.dueOn ? 'then' : 'the next meeting' }}</v-btn
            >
          </div>
          <p v-if="action.nextOn" class="soft small">
            What you write stands under the action on the sheet of {{ mediumDay(action.nextOn) }}.
          </p>
        </template>
        <div v-else class="deeds">
          <span class="strong fresh">Done.</span>
          <v-btn variant="outlined" @click="send('open', false, 'It is open again.')">Not done after all</v-btn>
        </div>
        <p role="status" class="fresh strong">{{ said }}</p>
        <ProblemNote :error="sayError" />
      </form>
      <NotYou :name="action.name" from="whoever sent it to you" />
      <ul v-if="action.notes.length" class="ruled small">
        <li v-for="(note, i) in action.notes" :key="i">
          <span class="soft">{{ shortDay(note.on) }} {{ note.by }}</span>
          {{ [note.delayed ? 'will not be done by then' : '', note.text].filter(Boolean).join(': ') }}
        </li>
      </ul>
    </section>
    <section v-else-if="isGone" class="sheet stack">
      <h1>This link leads nowhere any more</h1>
      <p>
        The action has another owner by now, was done some time ago, or you have a newer link. Ask whoever sent it to
        you.
      </p>
    </section>
    <ProblemNote v-else :error="error" />
  </div>
</template>

<style scoped>
.page {
  max-width: 640px;
  margin: 0 auto;
  padding: 24px 16px;
  display: grid;
  gap: 16px;
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.over {
  text-decoration: line-through;
  color: var(--soft);
}
h1 {
  overflow-wrap: anywhere;
}
</style>
