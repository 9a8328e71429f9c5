<script setup lang="ts">
// Stands where a page will be: that it is being opened, with lines where they will be once it takes a moment, or why it cannot be.
defineProps<{ problem?: { message: string } | null; says?: string }>()
/** What comes sooner than this does not flash. */
const PATIENCE_MS = 250
</script>

<template>
  <div>
    <p
      class="empty"
      role="status"
    >
      {{ problem?.message ?? says ?? 'Opening…' }}
    </p>
    <el-skeleton
      v-if="!problem"
      class="lines"
      aria-hidden="true"
      :rows="8"
      :throttle="PATIENCE_MS"
    />
  </div>
</template>

<style scoped>
.lines {
  padding: 0 20px;
}
</style>
