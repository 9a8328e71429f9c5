<script setup lang="ts">
// Technicians' days side by side: a time is chosen by a click, or moved by the arrows.
import { nextTick, ref } from 'vue'
import { firstGap } from '~~/core/dispatch/firstGap'
import type { Span } from '~~/core/dispatch/plan/instance'
import type { Answer } from '~~/shared/api'
import { STEP_MS } from '~/dispatch/day/steps'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DayStrip from './DayStrip.vue'
import type { Technician } from './usePromise'

const props = defineProps<{
  callId: string
  schedule: Answer<'schedule'>
  territory: string
  /** who is visited */
  name: string
  startAt: number | null
}>()
const emit = defineEmits<{ pick: [technicianId: string, startAt: number] }>()
const draft = defineModel<Draft>({ required: true })
const session = useSession()
const strips = ref<HTMLElement>()
const serves = (t: Technician) =>
  !props.territory || t.territories.length === 0 || t.territories.includes(props.territory)
const lasting = (at: { startAt: string | null; durationSeconds: number }): Span => {
  const from = Date.parse(at.startAt!)
  return { from, to: from + at.durationSeconds * 1000 }
}
const span = ({ from, to }: { from: string; to: string }): Span => ({
  from: Date.parse(from),
  to: Date.parse(to),
})
function busyOf(t: Technician): Span[] {
  const { visits, held } = props.schedule
  return [
    ...visits.filter((v) => v.technicianId === t.id && v.startAt).map(lasting),
    ...held.filter((h) => h.technicianId === t.id && h.callId !== props.callId).map(lasting),
    ...t.timeOff.map(span),
  ]
}
const gapOf = (t: Technician) =>
  firstGap({
    working: t.working.map(span),
    busy: busyOf(t),
    seconds: draft.value.durationSeconds,
    after: session.now(),
  })
const focused = () => strips.value?.querySelector<HTMLElement>('.one.on [tabindex]')
defineExpose({
  /** The strip of whoever is chosen takes the keys; the table of openings stays in sight as far as it can. */
  focus() {
    focused()?.focus({ preventScroll: true })
    focused()?.scrollIntoView({ block: 'nearest' })
  },
})
function goTo(next: Technician | undefined) {
  if (!next) return
  const gap = gapOf(next)
  if (gap !== null) emit('pick', next.id, gap)
  else draft.value.technicianId = next.id
  void nextTick(() => focused()?.focus())
}
function key(e: KeyboardEvent, at: number) {
  const people = props.schedule.technicians
  const move = (ms: number) =>
    props.startAt !== null && emit('pick', people[at]!.id, props.startAt + ms)
  if (e.key === 'ArrowRight') move(STEP_MS)
  else if (e.key === 'ArrowLeft') move(-STEP_MS)
  else if (e.key === 'ArrowDown') goTo(people[at + 1])
  else if (e.key === 'ArrowUp') goTo(people[at - 1])
  else return
  e.preventDefault()
}
</script>

<template>
  <div
    ref="strips"
    class="days"
  >
    <div
      v-for="(t, i) in schedule.technicians"
      :key="t.id"
      class="one"
      :class="{ on: t.id === draft.technicianId }"
    >
      <ActButton
        quiet
        class="name"
        @click="draft.technicianId = t.id"
      >
        {{ t.name }}<span class="quiet small">{{ t.skills.join(', ') }}</span
        ><span
          v-if="!serves(t)"
          class="soon small"
          >serves {{ t.territories.join(', ') }}</span
        >
      </ActButton>
      <DayStrip
        :schedule="schedule"
        :technician-id="t.id"
        :call-id="callId"
        :start="t.id === draft.technicianId ? startAt : null"
        :seconds="draft.durationSeconds"
        :name="name"
        @pick="(ms) => emit('pick', t.id, ms)"
        @keydown="key($event, i)"
      />
    </div>
  </div>
</template>

<style scoped>
.days {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.one {
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr);
}
.one .name :deep(> span) {
  flex-direction: column;
  align-items: flex-start;
}
.one .name {
  flex-direction: column;
  align-items: flex-start;
  gap: 0;
  padding: 6px 4px;
  height: auto;
  text-align: left;
  white-space: normal;
}
.one.on .name {
  background: var(--green-1);
}
</style>
