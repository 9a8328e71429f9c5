<script setup lang="ts">
// A dialog over the page: opened by `v-model`, or there for as long as its owner draws it. It asks before
// what was typed in it is lost.
import { askBeforeLeaving, leavingWithin } from './leaving'

const open = defineModel<boolean>({ default: true })
defineProps<{
  title: string
  width?: number | string
  /** drawn beside the page instead of in it: where it may be opened from within another one */
  apart?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
const forms = leavingWithin()
async function mayClose(close: () => void) {
  if (!forms.any() || (await askBeforeLeaving())) close()
}
</script>

<template>
  <el-dialog
    v-model="open"
    :append-to-body="apart"
    :title="title"
    :width="width ?? 560"
    :close-on-click-modal="false"
    :before-close="mayClose"
    @close="emit('close')"
  >
    <slot />
    <template
      v-if="$slots.footer"
      #footer
    >
      <slot name="footer" />
    </template>
  </el-dialog>
</template>
