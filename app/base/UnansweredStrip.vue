<script setup lang="ts">
// What the page could not be told, where the page does not say it itself; asked again by one press.
import { computed } from 'vue'
import { unanswered } from '~/lib/unanswered'

const sentences = computed(() => [
  ...new Set([...unanswered.values()].map(({ message }) => message)),
])
const askAgain = () => [...unanswered.values()].forEach(({ again }) => void again())
</script>

<template>
  <div
    v-if="sentences.length"
    class="strip row no-print"
    role="alert"
  >
    <span class="grow"><b>A part of this page could not be had.</b> {{ sentences.join(' ') }}</span>
    <button
      class="btn"
      @click="askAgain"
    >
      Ask again
    </button>
  </div>
</template>

<style scoped>
.strip {
  background: var(--marigold-1);
  padding: 6px 16px;
  border-bottom: 1px solid var(--marigold-line);
}
</style>
