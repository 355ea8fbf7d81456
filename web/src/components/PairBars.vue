<script setup lang="ts">
import { computed } from 'vue'

/** A small plot: a bar for each meeting, or two beside each other, with the largest and the last written on them. */
const {
  first,
  beside = '',
  second = [],
} = defineProps<{
  title: string
  first: number[]
  beside?: string
  second?: number[]
  days: string[]
}>()
const WIDTH = 240
const HEIGHT = 56
const most = computed(() => Math.max(1, ...first, ...second))
const step = computed(() => WIDTH / Math.max(first.length, 1))
const bar = computed(() => Math.min(second.length ? 9 : 14, (step.value - 4) / (second.length ? 2 : 1)))
const tall = (value: number) => (value / most.value) * HEIGHT
const left = (i: number, pair: number) => i * step.value + 2 + pair * (bar.value + 1)
</script>

<template>
  <figure aria-hidden="true">
    <figcaption class="small">
      <i class="one" /> {{ title }}
      <template v-if="beside"><i class="two" /> {{ beside }}</template>
      <span class="soft"> · at most {{ most }}</span>
    </figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT + 2}`" preserveAspectRatio="none">
      <g v-for="(value, i) in first" :key="i">
        <rect class="one" :x="left(i, 0)" :y="HEIGHT - tall(value)" :width="bar" :height="tall(value)">
          <title>{{ days[i] }}: {{ value }}</title>
        </rect>
        <rect
          v-if="second.length"
          class="two"
          :x="left(i, 1)"
          :y="HEIGHT - tall(second[i] ?? 0)"
          :width="bar"
          :height="tall(second[i] ?? 0)"
        >
          <title>{{ days[i] }}: {{ second[i] }}</title>
        </rect>
      </g>
      <line x1="0" :x2="WIDTH" :y1="HEIGHT + 0.5" :y2="HEIGHT + 0.5" />
    </svg>
    <p class="ends small soft">
      <span>{{ days[0] }}</span><span v-if="days.length > 1">{{ days.at(-1) }}</span>
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  height: 58px;
}
i {
  display: inline-block;
  width: 10px;
  height: 10px;
}
i.two {
  margin-left: 8px;
}
i.one {
  background: var(--pine);
}
i.two {
  background: var(--carried);
}
rect.one {
  fill: var(--pine);
}
rect.two {
  fill: var(--carried);
}
line {
  stroke: var(--line);
}
.ends {
  display: flex;
  justify-content: space-between;
  margin: 2px 0 0;
}
</style>
