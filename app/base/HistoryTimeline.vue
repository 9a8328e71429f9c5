<script setup lang="ts">
// What happened to a thing, the last first.
import { useSession } from '~/stores/session'

defineProps<{ entries: readonly { id: number; at: string; who: string; text: string }[] }>()
const session = useSession()
</script>

<template>
  <ol
    class="history"
    aria-label="History"
  >
    <li
      v-for="entry in entries"
      :key="entry.id"
    >
      {{ entry.text }}<br /><span class="quiet small"
        >{{ session.dayTime(entry.at) }} · {{ entry.who }}</span
      >
    </li>
  </ol>
</template>

<style scoped>
.history {
  list-style: none;
  margin: 12px 0 0;
  padding: 0 0 0 16px;
  border-left: 2px solid var(--green-2);
}
li {
  position: relative;
  margin-bottom: 12px;
}
li::before {
  content: '';
  position: absolute;
  left: -22px;
  top: 5px;
  width: 8px;
  height: 8px;
  border: 2px solid var(--green);
  border-radius: 50%;
  background: var(--sheet);
}
</style>
