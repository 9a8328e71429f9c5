<script setup lang="ts">
// A control with its name above it and, beneath, what is wrong with what was typed.
defineProps<{
  label?: string
  /** what is wrong, or nothing */
  error?: string | false | null
  /** the name before the control, on one line with it */
  inline?: boolean
}>()
</script>

<template>
  <el-form-item
    class="field"
    :class="{ inline }"
    :label-position="inline ? 'left' : 'top'"
    :label="label ?? ' '"
    :error="error || ''"
  >
    <template
      v-if="$slots.label"
      #label
    >
      <slot name="label" />
    </template>
    <slot />
    <template #error>
      <span class="wrong">{{ error }}</span>
    </template>
  </el-form-item>
</template>
