<script setup lang="ts">
// Stands where a page will be: that it is being opened, with lines where they will be once it takes a moment, or why it cannot be, with what
// asks again. In its slot: where else to go then.
import { computed } from 'vue'

const props = defineProps<{
  problem?: { message: string; status?: number } | null
  says?: string
  again?: () => unknown
}>()
/** What is not there, or not for whoever asks, will not be there the next moment. */
const mayComeYet = computed(() => ![403, 404].includes(props.problem?.status ?? 0))
/** What comes sooner than this does not flash. */
const PATIENCE_MS = 250
</script>

<template>
  <div>
    <p
      class="empty"
      role="status"
    >
      {{ problem?.message ?? says ?? 'Opening…' }}
    </p>
    <p
      v-if="problem"
      class="ways"
    >
      <button
        v-if="again && mayComeYet"
        class="btn"
        @click="again()"
      >
        Ask again
      </button>
      <slot />
    </p>
    <el-skeleton
      v-else
      class="lines"
      aria-hidden="true"
      :rows="8"
      :throttle="PATIENCE_MS"
    />
  </div>
</template>

<style scoped>
.lines {
  padding: 0 20px;
}
.ways {
  display: flex;
  justify-content: center;
  gap: 10px;
}
</style>
