<script setup lang="ts" generic="Code extends string">
/** Days of the week, each on or off; the model holds those that are on, in the order of the week. */
const { days } = defineProps<{ days: readonly { code: Code; name: string }[]; label: string }>()
const chosen = defineModel<Code[]>({ required: true })

function toggle(code: Code) {
  const wanted = new Set(chosen.value)
  if (!wanted.delete(code)) wanted.add(code)
  chosen.value = days.map(day => day.code).filter(day => wanted.has(day))
}
</script>

<template>
  <div role="group" :aria-label="label" class="days">
    <button
      v-for="day in days"
      :key="day.code"
      type="button"
      :class="{ on: chosen.includes(day.code) }"
      :aria-pressed="chosen.includes(day.code)"
      @click="toggle(day.code)"
    >
      {{ day.name.slice(0, 2) }}<span class="visually-hidden">{{ day.name.slice(2) }}</span>
    </button>
    <slot />
  </div>
</template>

<style scoped>
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.days button {
  min-width: 34px;
  padding: 5px 6px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.days button.on {
  background: var(--pine);
  color: rgb(var(--v-theme-on-primary));
  border-color: var(--pine);
}
</style>
