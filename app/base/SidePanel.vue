<script setup lang="ts">
// A panel beside the page, which stays in use behind it: about one thing of it.
const open = defineModel<boolean>({ default: true })
defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <el-drawer
    v-model="open"
    class="side-panel"
    size="420px"
    modal-penetrable
    :title="title"
    :modal="false"
    :lock-scroll="false"
    @close="emit('close')"
  >
    <slot />
  </el-drawer>
</template>
