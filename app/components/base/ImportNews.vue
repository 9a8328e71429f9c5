<script setup lang="ts">
// What becomes of a file that is taken in: how far it is, what went wrong, what was taken in with its way back.
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import type { Problem } from '~/lib/api'

defineProps<{
  said: string
  problem: Problem | null
  busy: boolean
  /** in per cent, while it goes on */
  progress: number | null
  /** something was taken in, as the slot says */
  done: boolean
}>()
const emit = defineEmits<{ undo: [] }>()
</script>

<template>
  <p
    v-if="said"
    class="note warn"
    role="status"
  >
    {{ said }}
  </p>
  <Notice :of="problem" />
  <div
    v-if="done"
    class="note row"
    role="status"
  >
    <span class="grow"><slot /></span
    ><ActButton
      :disabled="busy"
      @click="emit('undo')"
    >
      Undo the import
    </ActButton>
  </div>
  <p
    v-if="busy && progress !== null"
    class="row"
    role="status"
  >
    <progress
      :value="progress"
      max="100"
      aria-label="Progress"
    />
    {{ progress }} %
  </p>
</template>

<style scoped>
progress {
  width: 260px;
  accent-color: var(--green);
}
</style>
