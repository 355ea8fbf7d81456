<script setup lang="ts">
import { defineAsyncComponent, type Component } from 'vue'
import HouseName from '../components/HouseName.vue'

/** Which page it is, by its address; none of them leads to another without being loaded. */
const PAGES: [RegExp, Component, string[]][] = [
  [
    /^\/ask\/([^/]+)\/([0-9a-f-]{36})\/([^/]+)$/,
    defineAsyncComponent(() => import('./PollPage.vue')),
    ['id', 'personId', 'token'],
  ],
  [/^\/ask\/([^/]+)\/([^/]+)$/, defineAsyncComponent(() => import('./PollPage.vue')), ['id', 'token']],
  [/^\/book\/([^/]+)\/([^/]+)$/, defineAsyncComponent(() => import('./BookPage.vue')), ['id', 'token']],
  [/^\/booking\/([^/]+)\/([^/]+)$/, defineAsyncComponent(() => import('./Booked.vue')), ['id', 'token']],
  [
    /^\/pick\/([^/]+)\/([0-9a-f-]{36})\/([^/]+)$/,
    defineAsyncComponent(() => import('./PickPage.vue')),
    ['id', 'personId', 'token'],
  ],
  [/^\/with\/([^/]+)\/([^/]+)$/, defineAsyncComponent(() => import('./HostPage.vue')), ['id', 'token']],
]
const found = PAGES.find(([pattern]) => pattern.test(location.pathname))
const given = found?.[0].exec(location.pathname)?.slice(1) ?? []
const props = Object.fromEntries((found?.[2] ?? []).map((name, i) => [name, given[i]]))
</script>

<template>
  <main class="public">
    <HouseName />
    <component :is="found[1]" v-if="found" v-bind="props" />
    <section v-else class="sheet"><h1>There is nothing here</h1></section>
  </main>
</template>
