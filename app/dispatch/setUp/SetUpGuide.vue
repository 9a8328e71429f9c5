<script setup lang="ts">
// What scheduling needs, what of it is there, and where what is missing is entered.
import type { SetUp } from './useSetUp'

defineProps<{ guide: SetUp['guide'] }>()
</script>

<template>
  <ul
    class="sheet guide"
    aria-label="What scheduling needs"
  >
    <li
      v-for="point in guide"
      :key="point.code"
    >
      <span
        class="num"
        :class="point.done ? 'good' : 'soon'"
        >{{ point.done ? '✓' : '!' }}</span
      >
      <span class="grow">{{ point.text }}</span>
      <a
        v-if="!point.done"
        :href="point.where"
        >Go there</a
      >
    </li>
  </ul>
</template>

<style scoped>
.guide {
  list-style: none;
  margin: 0;
  padding: 6px 14px;
}
.guide li {
  display: flex;
  gap: 10px;
  padding: 4px 0;
}
</style>
