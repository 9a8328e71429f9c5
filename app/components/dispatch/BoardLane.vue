<script setup lang="ts">
// One technician's row of the board. It is drawn anew only when something of its own changes, so that a drag stays smooth on a large day.
import { stackSpans } from '~~/core/time/stackSpans'
import { HOUR } from '~~/core/time/units'
import { computed, inject, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import BoardVisit from '~/components/dispatch/BoardVisit.vue'
import { TRYING, type Frame, type Lane } from '~/lib/boardDay'
import { useScheduleFilter } from '~/stores/scheduleFilter'

type Visit = Answer<'placeVisit'>
type Technician = Answer<'schedule'>['technicians'][number]
const props = defineProps<{
  technician: Technician
  lane: Lane
  frame: Frame
  date: string
  now: number | null
  may: boolean
  fresh: string
  /** the hours run down instead of across */
  turned?: boolean
  nameOf: (id: string | null) => string
}>()
const emit = defineEmits<{
  begin: [event: MouseEvent, technicianId: string]
  grab: [event: PointerEvent, visit: Visit, edge: boolean]
  keys: [event: KeyboardEvent, visit: Visit]
  look: [id: string]
}>()
const filters = useScheduleFilter()
const anywhere = inject(TRYING, ref(null))
const trying = computed(() =>
  anywhere.value?.place.startAt && (anywhere.value.place.technicianId ?? '') === props.technician.id
    ? anywhere.value
    : null,
)
const leaving = computed(() =>
  anywhere.value && props.lane.visits.some((v) => v.id === anywhere.value!.visit.id)
    ? anywhere.value.visit.id
    : '',
)
const pos = (iso: string | number) =>
  `${Math.max(0, Math.min(100, (((typeof iso === 'number' ? iso : Date.parse(iso)) - props.frame.from) / props.frame.span) * 100))}%`
const wide = (a: string, b: string) =>
  `${((Math.min(Date.parse(b), props.frame.from + props.frame.span) - Math.max(Date.parse(a), props.frame.from)) / props.frame.span) * 100}%`
const long = (seconds: number) => `${((seconds * 1000) / props.frame.span) * 100}%`
function said(t: Technician): string {
  if (t.goesWith) return `goes with ${props.nameOf(t.goesWith)}`
  const kind = t.kind === 'employee' ? [] : [t.kind]
  return [...kind, ...t.skills.filter((skill) => skill !== t.kind)].join(', ')
}
/** Visits at one time stand beneath each other: all are seen, and within reach. */
const levels = computed(() => {
  const all = [...props.lane.visits, ...props.lane.helps]
  const spans = all.map((v) => {
    const from = Date.parse(v.state === 'planned' ? v.startAt! : (v.arriveAt ?? v.startAt!))
    return { from, to: from + v.durationSeconds * 1000 }
  })
  return new Map(stackSpans(spans).map((level, i) => [all[i]!.id, level]))
})
/** px between visits at one time: beneath each other, or, where the hours run down, beside each other */
const level = computed(() => (props.turned ? 148 : 62))
const HELD_PX = 44
const first = computed(() => level.value + 14)
const below = computed(() => Math.max(0, ...levels.value.values()) * level.value)
const deep = computed(() => first.value + below.value + props.lane.held.length * HELD_PX)
const off = (t: Technician) =>
  t.timeOff
    .filter((o) => o.kind !== 'break')
    .map((o) => o.reason)
    .join(', ')
</script>

<template>
  <div
    class="person"
    role="row"
    :class="{ turned }"
    :style="{ minBlockSize: `${deep}px` }"
  >
    <div
      class="name"
      role="rowheader"
    >
      <b>{{ technician.name }}</b><NuxtLink
        v-if="may && technician.id"
        class="take small"
        :to="{ path: '/calls/new', query: { date, technician: technician.id } }"
        :aria-label="`Take a call for ${technician.name}`"
        >+ call</NuxtLink
      ><span class="quiet small">{{ said(technician) }}</span
      ><span
        v-if="off(technician)"
        class="soon small"
        >off: {{ off(technician) }}</span
      >
    </div>
    <div
      class="lane"
      role="gridcell"
      :data-technician="technician.id"
      @click.self="emit('begin', $event, technician.id)"
    >
      <span
        v-for="(w, i) in technician.working"
        :key="i"
        class="working"
        :style="{ insetInlineStart: pos(w.from), inlineSize: wide(w.from, w.to) }"
      />
      <span
        v-for="(o, i) in technician.timeOff"
        :key="`o${i}`"
        class="off"
        :title="o.reason"
        :style="{ insetInlineStart: pos(o.from), inlineSize: wide(o.from, o.to) }"
      />
      <span
        v-for="i in Math.max(0, Math.round(frame.span / HOUR) - 1)"
        :key="`h${i}`"
        class="line"
        :style="{ insetInlineStart: pos(frame.from + i * HOUR) }"
      />
      <NuxtLink
        v-for="(h, i) in lane.held"
        :key="h.callId"
        :to="`/calls/${h.callId}`"
        class="held"
        :style="{
          insetBlockStart: `${first - 2 + below + i * HELD_PX}px`,
          insetInlineStart: pos(h.startAt),
          inlineSize: long(h.durationSeconds),
        }"
        ><b class="clip">Held: {{ h.summary }}</b
        ><span
          v-if="h.missing"
          class="clip small"
          >still missing: {{ h.missing }}</span
        ></NuxtLink
      >
      <BoardVisit
        v-for="v in lane.visits"
        :key="v.id"
        :visit="v"
        :pos="pos"
        :wide="wide"
        :may="may"
        :fresh="fresh === v.id"
        :leaving="leaving === v.id"
        :dim="filters.active && !filters.fits(v)"
        :down="levels.get(v.id)! * level"
        @grab="(e, edge) => emit('grab', e, v, edge)"
        @keys="emit('keys', $event, v)"
      />
      <button
        v-for="v in lane.helps"
        :key="`h${v.id}`"
        class="helps"
        :style="{
          insetBlockStart: `${18 + levels.get(v.id)! * level}px`,
          insetInlineStart: pos(v.startAt!),
          inlineSize: long(v.durationSeconds),
        }"
        :title="`with ${nameOf(v.technicianId)}: ${v.title}, ${v.customer}`"
        @click.stop="emit('look', v.id)"
      >
        <span class="clip small">with {{ nameOf(v.technicianId) }}</span
        ><span class="clip small">{{ v.customer }}</span>
      </button>
      <BoardVisit
        v-if="trying"
        :visit="{ ...trying.visit, ...trying.place, crewIds: trying.visit.crewIds }"
        :pos="pos"
        :wide="wide"
        :may="may"
        trying
        @keys="emit('keys', $event, trying.visit)"
      />
      <span
        v-if="now !== null && now >= frame.from && now <= frame.from + frame.span"
        class="now"
        :style="{ insetInlineStart: pos(now) }"
      />
    </div>
  </div>
</template>

<style scoped>
.person {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr);
  border-block-end: 1px solid var(--rule-2);
  contain: content;
}
.name {
  position: relative;
  padding: 9px 10px;
  display: flex;
  flex-direction: column;
  border-inline-end: 1px solid var(--rule-2);
}
.take {
  position: absolute;
  right: 6px;
  top: 10px;
  opacity: 0;
}
.name:hover .take,
.take:focus-visible {
  opacity: 1;
}
.lane {
  cursor: copy;
  position: relative;
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
  overflow: hidden;
}
.working,
.off,
.line,
.now {
  position: absolute;
  inset-block: 0;
  pointer-events: none;
}
.working {
  background: var(--sheet);
}
.off {
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
}
.line {
  border-inline-start: 1px solid var(--rule);
}
.helps {
  position: absolute;
  block-size: var(--deep, 48px);
  border: 1.5px dotted var(--ink-2);
  border-radius: 4px;
  background: rgb(255 255 255 / 70%);
  padding: 4px 6px;
  overflow: hidden;
  z-index: 2;
  display: flex;
  flex-direction: column;
  text-align: left;
  color: var(--ink-2);
  cursor: pointer;
}
/* Beneath the visits: a held time may lie over one, and both must stay within reach. */
.held {
  position: absolute;
  min-inline-size: 28px;
  block-size: 40px;
  border: 2px dotted var(--marigold-line);
  background: var(--marigold-1);
  border-radius: 4px;
  padding: 3px 6px;
  display: flex;
  flex-direction: column;
  text-decoration: none;
  color: var(--ink);
  font-size: 0.75rem;
  z-index: 3;
  overflow: hidden;
}
.now {
  border-inline-start: 2px solid var(--marigold-line);
  z-index: 5;
}
.turned {
  writing-mode: vertical-lr;
  grid-template-columns: var(--head) minmax(0, 1fr);
  flex: 1 0 auto;
  --deep: 134px;
}
/* Words stay as they are read, beneath each other; only the hours are turned. */
.turned .name,
.turned .held > *,
.turned .helps > *,
.turned :deep(.visit > :not(.edge)),
.turned :deep(.drive i) {
  writing-mode: horizontal-tb;
}
.turned .held,
.turned .helps,
.turned :deep(.visit) {
  flex-direction: row;
  flex-wrap: nowrap;
  align-items: stretch;
}
.turned .name {
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 7;
  border-bottom: 1px solid var(--rule-2);
}
.turned :deep(.edge) {
  inset: auto 0 0;
  width: auto;
  height: 7px;
  cursor: ns-resize;
}
</style>
