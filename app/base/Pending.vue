<script setup lang="ts">
// Stands where a page will be: that it is being opened, or why it cannot be.
defineProps<{ problem?: { message: string } | null; says?: string }>()
</script>

<template>
  <p
    class="empty"
    role="status"
  >
    {{ problem?.message ?? says ?? 'Opening…' }}
  </p>
</template>
