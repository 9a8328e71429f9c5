<script setup lang="ts">
// Beside the day: what waits for a slot, to be dragged or moved by keys to its place.
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import type { Visit } from './useDay'

defineProps<{ visits: Visit[] }>()
const emit = defineEmits<{
  grab: [event: PointerEvent, visit: Visit, edge: boolean]
  keys: [event: KeyboardEvent, visit: Visit]
}>()
const filters = useScheduleFilter()
/** Who will go is not known yet: they are in sight whoever is chosen. */
const isDim = (v: Visit) =>
  filters.active && !filters.fits({ ...v, technicianId: filters.filter.technicianIds[0] ?? null })
const isLate = (v: Visit) => v.waiting.includes('today') || v.waiting.includes('passed')
</script>

<template>
  <aside aria-label="No slot yet">
    <h2>
      No slot yet <span class="num">{{ visits.length }}</span>
    </h2>
    <div
      v-for="v in visits"
      :key="v.id"
      class="card"
      :class="{ dim: isDim(v), late: isLate(v) }"
      tabindex="0"
      role="button"
      :data-visit="v.id"
      :aria-label="`${v.title}, ${v.customer}. ${v.waiting}. Arrow keys place it.`"
      @pointerdown="emit('grab', $event, v, false)"
      @keydown="emit('keys', $event, v)"
    >
      <b>{{ v.title }}</b>
      <span>{{ v.customer }} · {{ v.town }}</span>
      <span class="quiet small">{{ v.waiting }} · {{ hoursMinutes(v.durationSeconds) }} h</span>
    </div>
    <p
      v-if="!visits.length"
      class="quiet"
    >
      Everything has its time.
    </p>
  </aside>
</template>

<style scoped>
aside {
  border-right: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 12px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h2 {
  display: flex;
  justify-content: space-between;
}
.card {
  border: 1px solid var(--rule-2);
  border-left: 3px solid var(--green-2);
  border-radius: 4px;
  background: var(--sheet);
  padding: 8px 10px;
  display: flex;
  flex-direction: column;
  cursor: grab;
  touch-action: none;
  color: var(--ink);
}
.card.late {
  border-left-color: var(--brick);
}
.dim {
  opacity: 0.3;
}
</style>
