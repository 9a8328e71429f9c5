<script setup lang="ts" generic="T extends string">
// One of a few: each is a button, and the one that is chosen stays pressed.
import ActButton from './ActButton.vue'

defineProps<{ options: readonly (readonly [value: T, name: string])[] }>()
const chosen = defineModel<T>({ required: true })
</script>

<template>
  <ActButton
    v-for="[value, name] in options"
    :key="value"
    :on="chosen === value"
    :aria-pressed="chosen === value"
    @click="chosen = value"
  >
    {{ name }}
  </ActButton>
</template>
