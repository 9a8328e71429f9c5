<script setup lang="ts">
// A line of text, or several.
import { onMounted, useAttrs, useTemplateRef } from 'vue'

defineOptions({ inheritAttrs: false })
const text = defineModel<string | null>()
const props = defineProps<{
  type?: 'text' | 'email' | 'tel' | 'password' | 'search'
  /** more than one line: how many at first; it grows with what is typed */
  rows?: number | string
}>()
const emit = defineEmits<{ change: [text: string]; input: [text: string] }>()
const input = useTemplateRef('input')
/** The library keeps the role for its own lists, and drops it. */
const { role, autofocus = false } = useAttrs()
onMounted(() => {
  if (role) input.value?.input?.setAttribute('role', String(role))
  // The browser itself does so only where a page is opened.
  if (autofocus !== false) input.value?.focus()
})
defineExpose({ focus: () => input.value?.focus(), select: () => input.value?.select() })
</script>

<template>
  <el-input
    ref="input"
    v-bind="$attrs"
    v-model="text"
    :type="props.rows ? 'textarea' : props.type"
    :autosize="props.rows ? { minRows: Number(props.rows), maxRows: 16 } : undefined"
    :show-password="props.type === 'password'"
    :validate-event="false"
    @change="emit('change', $event)"
    @input="emit('input', $event)"
  />
</template>
