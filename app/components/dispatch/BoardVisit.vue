<script setup lang="ts">
// A visit on the board: a bracket for the promise, a dotted line for the drive, an outline that says its state.
import { computed } from 'vue'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

const props = defineProps<{
  visit: Answer<'placeVisit'>
  pos: (iso: string | number) => string
  wide: (a: string, b: string) => string
  may: boolean
  trying?: boolean
  fresh?: boolean
  leaving?: boolean
  dim?: boolean
  /** px: how far beneath the first level of its row */
  down?: number
}>()
const emit = defineEmits<{
  grab: [event: PointerEvent, edge: boolean]
  keys: [event: KeyboardEvent]
}>()
const session = useSession()
const begin = computed(() =>
  props.visit.state === 'planned' || props.trying
    ? props.visit.startAt!
    : (props.visit.arriveAt ?? props.visit.startAt!),
)
const end = computed(() =>
  new Date(Date.parse(begin.value) + props.visit.durationSeconds * 1000).toISOString(),
)
const driveFrom = computed(() =>
  new Date(Date.parse(begin.value) - props.visit.driveSeconds * 1000).toISOString(),
)
const SAID: Record<string, string> = {
  planned: '',
  driving: 'driving',
  on_site: 'on site',
  paused: 'paused',
  finished: '✓',
  no_access: 'no access',
}
const said = computed(() => SAID[props.visit.state] ?? '')
/** What was to be over by now, and nobody began: it waits for another time. */
const isMissed = computed(() => props.visit.state === 'planned' && Boolean(props.visit.waiting))
const late = computed(() => {
  if (isMissed.value) return 'not begun'
  return props.visit.atRisk ? `expected ${session.time(props.visit.arriveAt)}` : ''
})
</script>

<template>
  <span
    v-if="visit.promiseStart && visit.promiseEnd"
    class="promise"
    :class="{ risk: visit.atRisk }"
    :style="{
      insetBlockStart: `${7 + (down ?? 0)}px`,
      insetInlineStart: pos(visit.promiseStart),
      inlineSize: wide(visit.promiseStart, visit.promiseEnd),
    }"
    :title="`Promised ${visit.promiseFrom}–${visit.promiseTo}`"
  />
  <span
    v-if="visit.driveSeconds && !trying"
    class="drive"
    :style="{
      insetBlockStart: `${42 + (down ?? 0)}px`,
      insetInlineStart: pos(driveFrom),
      inlineSize: wide(driveFrom, begin),
    }"
    ><i class="num">{{ Math.round(visit.driveSeconds / 60) }}</i></span
  >
  <div
    class="visit"
    :class="[
      visit.state,
      {
        risk: visit.atRisk || isMissed,
        trying,
        fresh,
        leaving,
        dim,
        locked: visit.locked,
        odd: visit.misfit && !trying,
      },
    ]"
    :style="{
      insetBlockStart: `${18 + (down ?? 0)}px`,
      insetInlineStart: pos(begin),
      inlineSize: wide(begin, end),
    }"
    tabindex="0"
    role="button"
    :data-visit="trying ? undefined : visit.id"
    :data-trying="trying ? '' : undefined"
    :aria-label="`${visit.title}, ${visit.customer}, ${session.time(visit.startAt)}, ${visit.state.replace('_', ' ')}${late ? `, ${isMissed ? '' : 'promise at risk, '}${late}` : ''}${visit.locked ? ', locked' : ''}`"
    :title="`${visit.number} ${visit.title}\n${visit.customer}, ${visit.place}, ${visit.town}${visit.promiseFrom ? `\npromised ${visit.promiseFrom}–${visit.promiseTo}` : ''}${late ? `\n${late}` : ''}${visit.misfit ? `\n${visit.misfit}` : ''}${visit.note ? `\n${visit.note}` : ''}`"
    @keydown="emit('keys', $event)"
    @pointerdown="emit('grab', $event, false)"
  >
    <i
      v-if="visit.misfit && !trying"
      class="misfit"
      aria-hidden="true"
      >!</i
    ><i
      v-if="visit.locked"
      class="pin"
      aria-hidden="true"
    /><b class="clip">{{ said ? (said === '✓' ? '✓ ' : `${said} · `) : '' }}{{ visit.title }}</b
    ><span class="clip"
      >{{ late || visit.customer
      }}{{ visit.state === 'finished' && visit.net ? ` · ${visit.net}` : '' }}</span
    >
    <span
      v-if="visit.crewIds.length"
      class="more num"
      :title="`${visit.crewIds.length + 1} people`"
      >{{ visit.crewIds.length + 1 }}×</span
    ><i
      v-if="may && !trying && !visit.locked"
      class="edge"
      aria-hidden="true"
      @pointerdown.stop="emit('grab', $event, true)"
    />
  </div>
</template>

<style scoped>
.promise {
  position: absolute;
  block-size: 6px;
  border: 1.5px solid var(--ink-2);
  border-block-end: 0;
  z-index: 2;
}
.promise.risk {
  border-color: var(--brick);
}
.drive {
  position: absolute;
  border-block-start: 2px dotted var(--ink-2);
  z-index: 2;
  text-align: center;
}
.drive i {
  position: absolute;
  inset-block-start: -17px;
  inset-inline: 0;
  font-style: normal;
  font-size: 0.6875rem;
  color: var(--ink-2);
}
.visit {
  position: absolute;
  block-size: var(--deep, 48px);
  border: 1.5px solid var(--steel);
  border-radius: 4px;
  background: var(--sheet);
  padding: 4px 6px;
  overflow: hidden;
  cursor: grab;
  z-index: 3;
  display: flex;
  flex-direction: column;
  font-size: 0.78125rem;
  touch-action: none;
  line-height: 1.3;
}
.visit b,
.visit span {
  display: block;
}
.on_site,
.paused {
  background: var(--green);
  border-color: var(--green);
  color: #fff;
}
.paused {
  background: #4b7f6f;
}
.finished {
  background: #eef3f0;
  border-color: var(--rule-2);
  color: var(--ink-2);
}
.driving {
  border-style: dashed;
}
.no_access {
  background: var(--marigold-1);
  border-color: var(--marigold-line);
}
.visit.risk {
  background: var(--brick-1);
  border-color: var(--brick);
  color: var(--ink);
}
.visit.trying {
  border: 2px dashed var(--green);
  background: var(--green-1);
  color: var(--ink);
  z-index: 6;
  opacity: 0.95;
  pointer-events: none;
}
.leaving {
  opacity: 0.45;
}
.dim {
  opacity: 0.25;
}
.locked {
  border-width: 1.5px 1.5px 1.5px 5px;
}
.pin {
  position: absolute;
  left: -3px;
  top: 50%;
  width: 1px;
  height: 12px;
  margin-top: -6px;
  background: var(--sheet);
}
.more {
  position: absolute;
  right: 9px;
  bottom: 3px;
  font-size: 0.6875rem;
  background: inherit;
}
.odd b {
  padding-right: 15px;
}
.misfit {
  position: absolute;
  right: 9px;
  top: 3px;
  font: 700 0.6875rem var(--text);
  width: 14px;
  height: 14px;
  border-radius: 7px;
  text-align: center;
  line-height: 14px;
  background: var(--marigold-1);
  color: #7a5000;
  border: 1px solid var(--marigold-line);
}
.fresh {
  box-shadow: 0 0 0 2px var(--green);
}
.edge {
  position: absolute;
  inset-inline-end: 0;
  inset-block: 0;
  inline-size: 7px;
  cursor: ew-resize;
}
</style>
