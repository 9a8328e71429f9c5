<script setup lang="ts">
// Why something was refused, where it was asked for. In a form: what no field says at its place.
import { computed } from 'vue'
import { formAround } from './useForm'

const props = defineProps<{
  /** the refusal; within a form it may be left out */
  of?: { message: string; errors?: readonly unknown[] } | null | undefined
}>()
const form = formAround()
const shown = computed(() => (props.of === undefined ? form?.unplaced : props.of))
</script>

<template>
  <p
    v-if="shown"
    class="note bad"
    role="alert"
  >
    {{ shown.message }}
    <slot />
  </p>
</template>
