<script setup lang="ts">
// What a page of the guide says. A link leads to another page of it.
import type { GuidePage } from '~~/core/text/guidePages'

defineProps<{ of: GuidePage }>()
const emit = defineEmits<{ go: [name: string] }>()
function follow(event: MouseEvent) {
  const href = (event.target as HTMLElement).closest('a')?.getAttribute('href')
  if (!href?.startsWith('#')) return
  event.preventDefault()
  emit('go', href.slice(1))
}
</script>

<template>
  <!-- Our own text, drawn when the app was built. -->
  <!-- eslint-disable vue/no-v-html -->
  <div
    class="guide-text"
    @click="follow"
    v-html="of.html"
  />
  <!-- eslint-enable vue/no-v-html -->
</template>

<style>
.guide-text {
  display: flex;
  flex-direction: column;
  gap: 10px;
  line-height: 1.5;
}
.guide-text ul {
  padding-left: 18px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.guide-text code {
  font-family: var(--mono);
}
</style>
