<script setup lang="ts">
// A dialog over the page: opened by `v-model`, or there for as long as its owner draws it. It asks before
// what was typed in it is lost.
import { computed, useTemplateRef } from 'vue'
import { useLayer } from '~/lib/layers'
import { useFocusBack } from './focusBack'
import { focusFirst } from './focusFirst'
import { askBeforeLeaving, leavingWithin } from './leaving'

const open = defineModel<boolean>({ default: true })
const props = defineProps<{
  title: string
  width?: number | string
  /** drawn beside the page instead of in it: where it may be opened from within another one */
  apart?: boolean
  /** what it asks must be answered before anything behind it is seen again */
  held?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
/** After the library, which puts the focus on the frame. */
const focusSoon = () => setTimeout(() => focusFirst(body.value), 0)
/** Never wider than the window. */
const room = computed(() => {
  const wide = String(props.width ?? 560)
  return /^\d+$/.test(wide) ? `min(${wide}px, 96vw)` : wide
})
const forms = leavingWithin()
const body = useTemplateRef('body')
useFocusBack(() => open.value)
useLayer(
  () => open.value,
  () => props.held || void mayClose(() => (open.value = false)),
)
async function mayClose(close: () => void) {
  if (forms.any() && !(await askBeforeLeaving())) return
  forms.discard()
  close()
}
</script>

<template>
  <el-dialog
    v-model="open"
    :append-to-body="apart"
    :title="title"
    :width="room"
    :close-on-click-modal="false"
    :close-on-press-escape="!held"
    :show-close="!held"
    :modal-class="held ? 'veiled' : undefined"
    :before-close="mayClose"
    @open-auto-focus="focusSoon"
    @close="emit('close')"
  >
    <div ref="body"><slot /></div>
    <template
      v-if="$slots.footer"
      #footer
    >
      <slot name="footer" />
    </template>
  </el-dialog>
</template>
