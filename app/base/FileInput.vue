<script setup lang="ts">
// A file from this device: chosen, or dropped on the button.
import { ref } from 'vue'
import type { UploadFile } from 'element-plus'

defineProps<{
  label: string
  /** which kinds, as the browser's chooser takes them */
  accept: string
  multiple?: boolean
  primary?: boolean
  disabled?: boolean
}>()
const emit = defineEmits<{ choose: [files: File[]] }>()
const waiting = ref<File[]>([])
/** Several that were chosen at once arrive one by one; they are handed on together. */
function take(file: UploadFile) {
  if (!file.raw) return
  waiting.value.push(file.raw)
  if (waiting.value.length > 1) return
  queueMicrotask(() => emit('choose', waiting.value.splice(0)))
}
</script>

<template>
  <el-upload
    class="file"
    :auto-upload="false"
    :show-file-list="false"
    :accept="accept"
    :multiple="multiple"
    :disabled="disabled"
    :on-change="take"
  >
    <span
      class="btn"
      :class="{ act: primary, off: disabled }"
      role="button"
      >{{ label }}</span
    >
  </el-upload>
</template>
