<script setup lang="ts">
// Why something was refused, where it was asked for. In a form: what no field says at its place.
import { computed, useTemplateRef, watch } from 'vue'
import { formAround } from './useForm'

const props = defineProps<{
  /** the refusal; within a form it may be left out */
  of?: { message: string; errors?: readonly unknown[] } | null | undefined
}>()
const form = formAround()
const shown = computed(() => (props.of === undefined ? form?.unplaced : props.of))
const note = useTemplateRef<HTMLElement>('note')
// What was pressed may stand far beneath it.
watch(shown, () => note.value?.scrollIntoView?.({ block: 'nearest' }), { flush: 'post' })
</script>

<template>
  <p
    v-if="shown"
    ref="note"
    class="note bad"
    role="alert"
  >
    {{ shown.message }}
    <slot />
  </p>
</template>
