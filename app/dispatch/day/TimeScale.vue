<script setup lang="ts">
// The hours across the board, and now among them.
import { computed } from 'vue'
import { HOUR } from '~~/core/time/units'
import type { Frame } from '~/lib/boardDay'
import { useSession } from '~/stores/session'

const props = defineProps<{ frame: Frame; now: number | null; turned?: boolean }>()
const session = useSession()
const said = (ms: number) => session.time(new Date(ms).toISOString())
const along = (ms: number) => {
  const share = (ms - props.frame.from) / props.frame.span
  return `${Math.max(0, Math.min(1, share)) * 100}%`
}
const hours = computed(() =>
  Array.from(
    { length: Math.max(0, Math.round(props.frame.span / HOUR)) },
    (_, i) => props.frame.from + i * HOUR,
  ),
)
const isOn = (ms: number) => ms >= props.frame.from && ms <= props.frame.from + props.frame.span
</script>

<template>
  <div
    class="scale"
    :class="{ turned }"
  >
    <span
      v-for="hour in hours"
      :key="hour"
      class="num"
      :style="{ [turned ? 'top' : 'left']: along(hour) }"
      >{{ said(hour) }}</span
    >
    <span
      v-if="now !== null && isOn(now)"
      class="nowtag num"
      :style="{ [turned ? 'top' : 'left']: along(now) }"
      >{{ said(now) }}</span
    >
  </div>
</template>

<style scoped>
.scale {
  position: relative;
  block-size: 26px;
  margin-inline-start: 128px;
  border-block-end: 1px solid var(--rule-2);
}
.scale span {
  position: absolute;
  top: 5px;
  font-size: 0.75rem;
  color: var(--ink-2);
  padding-left: 4px;
}
.scale .nowtag {
  background: var(--marigold);
  color: #fff;
  padding: 0 4px;
  transform: translateX(-50%);
  border-radius: 3px;
}
.turned {
  writing-mode: vertical-lr;
  block-size: 54px;
  margin-inline-start: var(--head);
  position: sticky;
  left: 0;
  background: var(--sheet);
  z-index: 6;
  flex: none;
}
.turned span {
  writing-mode: horizontal-tb;
  left: 5px;
}
.scale.turned .nowtag {
  transform: translateY(-50%);
}
</style>
