<script setup lang="ts">
import MarkdownIt from 'markdown-it'
import { computed } from 'vue'

/** Text as its writer has formatted it: a small part of Markdown, and no HTML of theirs. */
const { text } = defineProps<{ text: string }>()
const markdown = new MarkdownIt('commonmark', { html: false, linkify: true, breaks: true }).disable([
  'image',
  'heading',
])
// A link leads out in a window of its own, and tells nobody where it was pressed.
markdown.renderer.rules.link_open = (tokens, at, options, _env, self) => {
  tokens[at]!.attrSet('target', '_blank')
  tokens[at]!.attrSet('rel', 'noopener noreferrer')
  return self.renderToken(tokens, at, options)
}
const html = computed(() => markdown.render(text))
</script>

<template>
  <!-- markdown-it escapes whatever is HTML in the text -->
  <!-- eslint-disable-next-line vue/no-v-html -->
  <div class="markdown" v-html="html" />
</template>

<style scoped>
.markdown {
  overflow-wrap: anywhere;
}
.markdown :deep(p) {
  margin: 0 0 6px;
}
.markdown :deep(ul),
.markdown :deep(ol) {
  margin: 0 0 6px;
  padding-left: 20px;
  list-style: revert;
}
</style>
