<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Fit } from '../composables/useCommonTime'
import { startsOf } from '../commonTime'
import { clock, shortDay, wallOf } from '../time'

/**
 * A free stretch, or one time, with its reasons; opened, everybody's state in words, on their own wall. Of a stretch
 * that is chosen, the start can be.
 */
const { fit, at = null, timeZone } = defineProps<{ fit: Fit; at?: string | null; timeZone: string }>()
defineEmits<{ choose: [startsAt: string] }>()
const chosen = computed(() => at !== null)
const starts = computed(() =>
  fit.stretch ? startsOf(fit.stretch).map(start => ({ at: start, words: clock(wallOf(start, timeZone)) })) : [],
)
const same = (one: string, other: string | null) => other !== null && Date.parse(one) === Date.parse(other)

const open = ref(false)
const STATES = {
  free: 'free',
  tentative: 'tentative',
  busy: 'busy',
  outside: 'outside their hours',
  unknown: 'no calendar known',
}
const tone = computed(() => (fit.missing ? 'short' : fit.holds ? 'all' : 'likely'))
const ROLES = { required: 'must come', optional: 'if free', informed: 'for information' }
</script>

<template>
  <article
    class="sheet fit"
    :class="[tone, { chosen }]"
    :aria-label="`${shortDay(fit.localStart)} ${clock(fit.localStart)}`"
  >
    <button type="button" class="take" :aria-pressed="chosen" @click="$emit('choose', fit.startsAt)">
      <span class="row spread"
        ><b>{{ shortDay(fit.localStart) }}</b
        ><b>{{ clock((fit.stretch ?? fit).localStart) }}–{{ clock((fit.stretch ?? fit).localEnd) }}</b></span
      >
      <span v-if="fit.stretch" class="small soft"
        >start any time{{ fit.stretch.localStart === fit.localStart ? '' : `, best at ${clock(fit.localStart)}` }}</span
      >
      <span class="headline strong">{{ fit.headline }}</span>
      <span class="small soft">{{ fit.reasons.join(' · ') }}</span>
    </button>
    <label v-if="chosen && starts.length" class="small begins"
      >Begins at
      <select
        :value="starts.find(one => same(one.at, at))?.at"
        @change="$emit('choose', ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="one in starts" :key="one.at" :value="one.at">{{ one.words }}</option>
      </select></label
    >
    <div v-if="chosen" class="row deeds"><slot /></div>
    <button type="button" class="quiet small" :aria-expanded="open" @click="open = !open">
      {{ open ? 'Less' : 'Everybody'
      }}<span class="visually-hidden"> at {{ shortDay(fit.localStart) }} {{ clock(fit.localStart) }}</span>
    </button>
    <ul v-if="open" class="people small">
      <li v-for="person in fit.people" :key="person.id">
        <span class="strong">{{ person.name }}</span> <span class="soft">{{ ROLES[person.role] }}</span><br />
        <span
          :class="{
            alarm: ['busy', 'outside'].includes(person.state),
            carried: person.state !== 'free' && !['busy', 'outside'].includes(person.state),
            fresh: person.state === 'free',
          }"
          >{{ STATES[person.state] }}</span
        >
        <span class="soft">
          · {{ clock(person.localStart) }} in {{ person.zoneCity
          }}<template v-if="person.outsideMin">, {{ person.outsideMin }} min outside their hours</template></span
        >
      </li>
    </ul>
  </article>
</template>

<style scoped>
.fit {
  padding: 10px 14px 8px;
  border-left-width: 4px;
}
.fit.all,
.fit.likely {
  border-left-color: var(--pine);
}
.fit.likely {
  border-left-style: dashed;
}
.fit.short {
  border-left-color: var(--carried);
}
.fit.chosen {
  outline: 2px solid var(--alarm);
  outline-offset: 1px;
}
.take {
  display: grid;
  gap: 1px;
  width: 100%;
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.headline {
  color: var(--pine);
}
.likely .headline,
.short .headline {
  color: var(--carried-ink);
}
.begins {
  display: block;
  margin-top: 6px;
}
.deeds {
  margin: 8px 0 2px;
  gap: 8px;
}
.people li {
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.fit > .quiet {
  padding-left: 0;
}
</style>
