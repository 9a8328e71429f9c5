<script setup lang="ts">
// What the server would rather not do, asked about before it is done.
import { onBeforeUnmount, onMounted, useTemplateRef } from 'vue'
import ActButton from '~/base/ActButton.vue'

defineProps<{ text: string }>()
const emit = defineEmits<{ again: []; leave: [] }>()
const box = useTemplateRef<HTMLElement>('box')
// It is answered by keyboard, too, and leaves the focus where it was.
let before: Element | null = null
onMounted(() => {
  before = document.activeElement
  box.value?.querySelector('button')?.focus()
})
onBeforeUnmount(() => {
  if (box.value?.contains(document.activeElement)) (before as HTMLElement | null)?.focus()
})
</script>

<template>
  <div
    ref="box"
    class="note warn row"
    role="alertdialog"
    aria-label="Before it is saved"
    @keydown.esc.stop="emit('leave')"
  >
    <span class="grow"><b>Not saved yet.</b> {{ text }}</span>
    <ActButton
      primary
      @click="emit('again')"
    >
      Place it all the same
    </ActButton>
    <ActButton @click="emit('leave')"> Leave it </ActButton>
  </div>
</template>
