<script setup lang="ts">
// One technician's day as it would be with this visit: what is there, and the visit that is being placed.
import { STEP_MS } from '~/dispatch/day/steps'
import { HOUR } from '~~/core/time/units'
import { computed } from 'vue'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

const props = defineProps<{
  schedule: Answer<'schedule'>
  technicianId: string
  callId: string
  start: number | null
  seconds: number
  name: string
}>()
const emit = defineEmits<{ pick: [at: number] }>()
const session = useSession()
const from = computed(() => Date.parse(props.schedule.dayStart))
const span = computed(() => Date.parse(props.schedule.dayEnd) - from.value)
const left = (ms: number) => `${((ms - from.value) / span.value) * 100}%`
const width = (ms: number) => `${(ms / span.value) * 100}%`
const person = computed(() => props.schedule.technicians.find((t) => t.id === props.technicianId))
const visits = computed(() =>
  props.schedule.visits.filter((v) => v.technicianId === props.technicianId),
)
const held = computed(() =>
  props.schedule.held.filter(
    (h) => h.technicianId === props.technicianId && h.callId !== props.callId,
  ),
)
const hours = computed(() =>
  Array.from({ length: Math.round(span.value / HOUR) }, (_, i) => from.value + i * HOUR),
)
function click(e: MouseEvent) {
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  emit(
    'pick',
    from.value +
      Math.floor((((e.clientX - box.left) / box.width) * span.value) / STEP_MS) * STEP_MS,
  )
}
</script>

<template>
  <div
    class="strip"
    tabindex="0"
    role="slider"
    :aria-label="`${person?.name}: the day`"
    :aria-valuetext="start === null ? 'no time yet' : session.time(new Date(start).toISOString())"
    :aria-valuemin="0"
    :aria-valuemax="96"
    :aria-valuenow="start === null ? 0 : Math.round((start - from) / 900000)"
    @click="click"
  >
    <span
      v-for="h in hours"
      :key="h"
      class="hour num"
      :style="{ left: left(h) }"
      >{{ session.time(new Date(h).toISOString()) }}</span
    >
    <span
      v-for="(w, i) in person?.working ?? []"
      :key="i"
      class="working"
      :style="{
        left: left(Date.parse(w.from)),
        width: width(Date.parse(w.to) - Date.parse(w.from)),
      }"
    />
    <span
      v-for="(o, i) in person?.timeOff ?? []"
      :key="`o${i}`"
      class="off"
      :style="{
        left: left(Math.max(from, Date.parse(o.from))),
        width: width(Math.min(from + span, Date.parse(o.to)) - Math.max(from, Date.parse(o.from))),
      }"
      >{{ o.reason }}</span
    >
    <span
      v-for="v in visits"
      :key="v.id"
      class="visit clip"
      :style="{ left: left(Date.parse(v.startAt!)), width: width(v.durationSeconds * 1000) }"
      :title="`${v.title}, ${v.customer}`"
      >{{ v.customer }}</span
    >
    <span
      v-for="h in held"
      :key="h.callId"
      class="held clip"
      :style="{ left: left(Date.parse(h.startAt)), width: width(h.durationSeconds * 1000) }"
      :title="`Held by a call: ${h.summary}`"
      >held</span
    >
    <span
      v-if="start !== null"
      class="mine clip"
      :style="{ left: left(start), width: width(seconds * 1000) }"
      >{{ name || 'this visit' }}</span
    >
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  height: 58px;
  border: 1px solid var(--rule-2);
  background: repeating-linear-gradient(135deg, #eef1ef 0 6px, #e6ebe8 6px 7px);
  cursor: copy;
  overflow: hidden;
}
.hour {
  position: absolute;
  top: 2px;
  font-size: 0.625rem;
  color: var(--ink-2);
  border-left: 1px solid var(--rule-2);
  padding-left: 3px;
  height: 56px;
  z-index: 1;
}
.working {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--sheet);
}
.visit,
.mine,
.off,
.held {
  position: absolute;
  top: 19px;
  height: 32px;
  border: 1px solid var(--steel);
  border-radius: 3px;
  background: var(--sheet);
  font-size: 0.6875rem;
  padding: 3px 4px;
  z-index: 2;
}
.held {
  border-style: dotted;
  border-color: var(--marigold-line);
  background: var(--marigold-1);
}
.off {
  border-color: var(--rule-2);
  color: var(--ink-2);
  background: var(--paper);
}
.mine {
  border: 2px dashed var(--green);
  background: var(--green-1);
  font-weight: 650;
  z-index: 3;
}
</style>
