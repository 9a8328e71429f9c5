<script setup lang="ts">
// Why something was refused, where it was asked for.
import { computed } from 'vue'

const props = defineProps<{
  of: { message: string; errors?: readonly unknown[] } | null | undefined
  /** only what no field says at its place */
  unplaced?: boolean
}>()
const shown = computed(() => (props.unplaced && props.of?.errors?.length ? null : props.of))
</script>

<template>
  <p
    v-if="shown"
    class="note bad"
    role="alert"
  >
    {{ shown.message }}
  </p>
</template>
