<script setup lang="ts">
// The state of a thing, in a word; its tone says what the word says already.
defineProps<{ word: string; tone?: '' | 'good' | 'late' | 'soon' }>()
</script>

<template>
  <span
    class="chip"
    :class="tone"
    >{{ word }}</span
  >
</template>
