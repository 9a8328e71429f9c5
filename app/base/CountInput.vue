<script setup lang="ts">
// A whole number within its bounds.
const count = defineModel<number>()
defineProps<{ min?: number; max?: number; disabled?: boolean }>()
</script>

<template>
  <el-input-number
    v-model="count"
    class="figures"
    controls-position="right"
    :min="min"
    :max="max"
    :precision="0"
    :disabled="disabled"
    :validate-event="false"
  />
</template>
