<script setup lang="ts">
// A card beside a place of the page, which is marked meanwhile. It takes no focus and covers nothing that is pressed.
import { onWatcherCleanup, watch } from 'vue'

const props = defineProps<{
  /** the place */
  at: HTMLElement
  title: string
}>()
watch(
  () => props.at,
  (at) => {
    at.setAttribute('data-pointed', '')
    at.scrollIntoView({ block: 'nearest' })
    onWatcherCleanup(() => at.removeAttribute('data-pointed'))
  },
  { immediate: true },
)
</script>

<template>
  <el-popover
    :virtual-ref="at"
    virtual-triggering
    :visible="true"
    :width="300"
    placement="right-start"
    :fallback-placements="['left-start', 'bottom', 'top']"
    popper-class="point-at"
  >
    <div
      class="stack"
      role="status"
    >
      <b>{{ title }}</b>
      <slot />
    </div>
  </el-popover>
</template>

<style>
[data-pointed] {
  outline: 3px solid var(--marigold);
  outline-offset: 3px;
}
.el-popper.point-at {
  border: 1px solid var(--marigold);
  color: var(--ink);
  text-align: left;
  word-break: normal;
}
@media (pointer: coarse) {
  .point-at .el-button.btn.btn {
    min-height: 48px;
  }
}
</style>
