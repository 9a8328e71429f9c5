<script setup lang="ts">
// When: the day, technicians' days side by side, the window told to the customer, and what speaks against it before it is booked.
import { computed, nextTick, ref, watch } from 'vue'
import { firstGap } from '~~/core/dispatch/firstGap'
import { localTime, localToInstant, plusDays } from '~~/core/time/zone'
import { MINUTE } from '~~/core/time/units'
import type { Answer } from '~~/shared/api'
import DayStrip from '~/components/calls/DayStrip.vue'
import OpeningsTable from '~/components/calls/OpeningsTable.vue'
import NearestTable from '~/components/dispatch/NearestTable.vue'
import { call, type Problem } from '~/lib/api'
import { onLive, SHOWS } from '~/lib/live'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'

/** what a visit may take: a quarter of an hour to eight hours */
const LENGTHS = Array.from({ length: 32 }, (_, i) => (i + 1) * 900).map((seconds) => ({
  value: seconds,
  label: hoursMinutes(seconds),
}))
const props = defineProps<{
  callId: string
  chosen: Answer<'caller'> | null
  skills: string[]
  problem: Problem | null
  heldBy: string
}>()
const draft = defineModel<Draft>({ required: true })
const warnings = defineModel<{ code: string; text: string }[]>('warnings', { required: true })
const session = useSession()
const schedule = ref<Answer<'schedule'> | null>(null)
const strips = ref<HTMLElement>()
/** why the day, or what speaks against a time, could not be looked at */
const unseen = ref('')
const unchecked = ref(false)
const wrong = (path: string) => props.problem?.at(path) ?? ''
const times = Array.from(
  { length: 45 },
  (_, i) =>
    `${String(7 + Math.floor(i / 4)).padStart(2, '0')}:${String((i % 4) * 15).padStart(2, '0')}`,
)
const days = computed(() => Array.from({ length: 4 }, (_, i) => plusDays(session.today, i)))

async function load() {
  const { date } = draft.value
  if (!date) return
  try {
    const got = await call('schedule', { query: { date } })
    if (date !== draft.value.date) return
    schedule.value = got
    unseen.value = ''
  } catch (error) {
    if (date === draft.value.date) unseen.value = (error as Problem).message
  }
}
watch(() => draft.value.date, load, { immediate: true })
onLive(() => void load(), 0, SHOWS.day)
const startMs = computed(() =>
  draft.value.date && /^\d\d:\d\d$/.test(draft.value.start)
    ? localToInstant(draft.value.date, draft.value.start, session.zone)
    : null,
)
const territory = computed(
  () => props.chosen?.sites.find((s) => s.id === draft.value.siteId)?.territory ?? '',
)
const serves = (t: Answer<'schedule'>['technicians'][number]) =>
  !territory.value || t.territories.length === 0 || t.territories.includes(territory.value)
const technician = computed(
  () => schedule.value?.technicians.find((t) => t.id === draft.value.technicianId) ?? null,
)
defineExpose({ technician, startMs, begin })

function propose() {
  const [h] = draft.value.start.split(':').map(Number)
  if (h === undefined || Number.isNaN(h)) return
  Object.assign(draft.value, {
    promiseFrom: `${String(h).padStart(2, '0')}:00`,
    promiseTo: `${String(Math.min(23, h + 2)).padStart(2, '0')}:00`,
  })
}
function pick(technicianId: string, ms: number) {
  Object.assign(draft.value, { technicianId, start: localTime(ms, session.zone) })
  propose()
}
const busyOf = (id: string) => [
  ...schedule
    .value!.visits.filter((v) => v.technicianId === id && v.startAt)
    .map((v) => ({
      from: Date.parse(v.startAt!),
      to: Date.parse(v.startAt!) + v.durationSeconds * 1000,
    })),
  ...schedule
    .value!.held.filter((h) => h.technicianId === id && h.callId !== props.callId)
    .map((h) => ({
      from: Date.parse(h.startAt),
      to: Date.parse(h.startAt) + h.durationSeconds * 1000,
    })),
  ...schedule
    .value!.technicians.find((t) => t.id === id)!
    .timeOff.map((o) => ({ from: Date.parse(o.from), to: Date.parse(o.to) })),
]
const gapOf = (t: Answer<'schedule'>['technicians'][number]) =>
  firstGap({
    working: t.working.map((w) => ({ from: Date.parse(w.from), to: Date.parse(w.to) })),
    busy: busyOf(t.id),
    seconds: draft.value.durationSeconds,
    after: session.now(),
  })
// What the customer is told: the morning, the afternoon, the day, two hours, or the very time.
const PROMISES = [
  ['two', 'two hours'],
  ['morning', 'morning'],
  ['afternoon', 'afternoon'],
  ['day', 'all day'],
  ['exact', 'exact time'],
  ['own', 'from … to'],
  ['none', 'nothing yet'],
] as const
const NOON = '12:00'
const edges = computed(() => {
  const w = technician.value?.working ?? []
  return {
    from: w[0] ? session.time(w[0].from) : '08:00',
    to: w.length ? session.time(w.at(-1)!.to) : '17:00',
  }
})
const ownWindow = ref(false)
function promise(kind: string) {
  ownWindow.value = kind === 'own'
  const { start } = draft.value
  const to = {
    two: null,
    morning: [edges.value.from, NOON],
    afternoon: [NOON, edges.value.to],
    day: [edges.value.from, edges.value.to],
    exact: start ? [start, later(start, 15)] : null,
    none: ['', ''],
    own: null,
  }[kind]
  if (kind === 'two') propose()
  else if (to) Object.assign(draft.value, { promiseFrom: to[0], promiseTo: to[1] })
}
const later = (at: string, minutes: number) =>
  localTime(localToInstant('2026-01-01', at, 'UTC') + minutes * MINUTE, 'UTC')
const promiseKind = computed(() => {
  if (ownWindow.value) return 'own'
  const { promiseFrom: from, promiseTo: to, start } = draft.value
  if (!from) return 'none'
  if (from === edges.value.from && to === NOON) return 'morning'
  if (from === NOON && to === edges.value.to) return 'afternoon'
  if (from === edges.value.from && to === edges.value.to) return 'day'
  if (start && from === start && to === later(start, 15)) return 'exact'
  return start &&
    from === `${start.slice(0, 2)}:00` &&
    Number(to.slice(0, 2)) === Number(from.slice(0, 2)) + 2
    ? 'two'
    : 'own'
})
const table = ref<InstanceType<typeof OpeningsTable>>()
function take(o: Answer<'openings'>['items'][number]) {
  Object.assign(draft.value, {
    date: o.date,
    technicianId: o.technicianId,
    start: session.time(o.startAt),
    promiseFrom: o.promiseFrom,
    promiseTo: o.promiseTo,
    moves: o.moves,
  })
}
// What an opening would move belongs to that opening: another time or person moves nobody.
watch(
  () => [draft.value.technicianId, draft.value.date, draft.value.start].join(),
  () => {
    if (!table.value?.isTaken()) draft.value.moves = []
  },
  { flush: 'post' },
)
// Needed at once: who is near, and when they could be there.
const urgent = ref(false)
function sendNow(n: Answer<'nearest'>['items'][number]) {
  const at = Math.ceil(Date.parse(n.arriveAt) / 900_000) * 900_000
  Object.assign(draft.value, {
    date: session.today,
    technicianId: n.technicianId,
    start: localTime(at, session.zone),
    moves: [],
  })
  propose()
}
/** From the keyboard: the best opening, ready to be moved with the arrows. */
async function begin() {
  if (startMs.value === null || !technician.value) {
    const first = await table.value?.first()
    if (first) take(first)
    await load()
  }
  await nextTick()
  // The table of openings stays in sight as far as it can.
  const strip = strips.value?.querySelector<HTMLElement>('.one.on [tabindex]')
  strip?.focus({ preventScroll: true })
  strip?.scrollIntoView({ block: 'nearest' })
}
function key(e: KeyboardEvent, at: number) {
  const people = schedule.value!.technicians
  const move = (ms: number) => startMs.value !== null && pick(people[at]!.id, startMs.value + ms)
  if (e.key === 'ArrowRight') move(900_000)
  else if (e.key === 'ArrowLeft') move(-900_000)
  else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
    const next = people[at + (e.key === 'ArrowDown' ? 1 : -1)]
    if (!next) return
    const gap = gapOf(next)
    if (gap !== null) pick(next.id, gap)
    else draft.value.technicianId = next.id
    void nextTick(() => strips.value?.querySelector<HTMLElement>('.one.on [tabindex]')?.focus())
  } else return
  e.preventDefault()
}
let turn = 0
watch(
  () =>
    [
      draft.value.technicianId,
      startMs.value,
      draft.value.durationSeconds,
      draft.value.promiseFrom,
      draft.value.promiseTo,
      draft.value.siteId,
      props.skills.join(),
    ] as const,
  async ([technicianId, ms, durationSeconds, promiseFrom, promiseTo, siteId]) => {
    const mine = ++turn
    const got =
      technicianId && ms !== null
        ? await call('checkPlacement', {
            body: {
              visitId: null,
              technicianId,
              startAt: new Date(ms).toISOString(),
              durationSeconds,
              promiseFrom,
              promiseTo,
              siteId,
              skills: props.skills,
            },
          }).catch(() => null)
        : { warnings: [] }
    if (mine !== turn) return
    unchecked.value = got === null
    warnings.value = got?.warnings ?? []
  },
)
</script>

<template>
  <section class="when">
    <div class="row wrap">
      <span class="quiet small">When</span>
      <ActButton
        v-for="d in days"
        :key="d"
        :on="draft.date === d"
        :aria-pressed="draft.date === d"
        @click="draft.date = d"
      >
        {{ session.day(d) }}
      </ActButton>
      <DateInput
        v-model="draft.date"
        aria-label="Day"
      />
    </div>
    <OpeningsTable
      ref="table"
      :call-id="callId"
      :site-id="draft.siteId"
      :customer-id="draft.customerId"
      :duration-seconds="draft.durationSeconds"
      :skills="skills"
      :people="schedule?.technicians ?? []"
      :territories="
        [...new Set((schedule?.technicians ?? []).flatMap((t) => t.territories))].sort()
      "
      :chosen="{ technicianId: draft.technicianId, startAt: startMs }"
      @choose="take"
    />
    <p
      v-if="draft.moves.length"
      class="note warn"
      role="status"
    >
      It moves
      {{ draft.moves.map((m) => `${m.customer} to ${session.time(m.startAt)}`).join(', ') }}, within
      what was promised to them.
    </p>
    <p class="row">
      <ActButton
        :on="urgent"
        :aria-pressed="urgent"
        :disabled="!draft.siteId"
        @click="urgent = !urgent"
      >
        Needed now: who is near?</ActButton
      ><span
        v-if="!draft.siteId"
        class="quiet small"
        >Choose the site first.</span
      >
    </p>
    <NearestTable
      v-if="urgent && draft.siteId"
      :site-id="draft.siteId"
      :skills="skills"
      :chosen="draft.technicianId"
      @choose="sendNow"
    />
    <p
      v-if="heldBy"
      class="note bad"
      role="alert"
    >
      This time is held already by {{ heldBy }}. Choose another one.
    </p>
    <div class="row wrap">
      <Field label="Technician"
        ><Choice
          v-model="draft.technicianId"
          :options="[
            { value: null, label: 'nobody yet' },
            ...(schedule?.technicians ?? []).map((t) => ({ value: t.id, label: t.name })),
          ]"
      /></Field>
      <Field label="Start"
        ><Choice
          v-model="draft.start"
          :options="[
            { value: '', label: 'no time yet' },
            ...times.map((t) => ({ value: t, label: t })),
          ]"
          @change="propose"
      /></Field>
      <Field label="Takes"
        ><Choice
          v-model="draft.durationSeconds"
          :options="LENGTHS"
      /></Field>
      <Field label="Promise"
        ><Choice
          :model-value="promiseKind"
          :options="PROMISES.map(([k, name]) => ({ value: k, label: name }))"
          @change="promise($event)"
      /></Field>
      <span
        v-if="draft.promiseFrom && !ownWindow"
        class="num told"
        >{{ draft.promiseFrom }}–{{ draft.promiseTo }}</span
      >
      <template v-if="ownWindow"
        ><Field label="from"
          ><Choice
            v-model="draft.promiseFrom"
            :options="[{ value: '', label: '–' }, ...times.map((t) => ({ value: t, label: t }))]"
        /></Field>
        <Field label="to"
          ><Choice
            v-model="draft.promiseTo"
            :options="[
              { value: '', label: '–' },
              ...times.map((t) => ({ value: t, label: t })),
            ]" /></Field
      ></template>
    </div>
    <p
      v-if="wrong('promiseTo') || wrong('technicianId') || wrong('date')"
      class="wrong"
    >
      {{ wrong('promiseTo') || wrong('technicianId') || wrong('date') }}
    </p>
    <p
      v-if="unseen"
      class="note bad"
      role="alert"
    >
      The day could not be looked at: {{ unseen }}
      <ActButton @click="load"> Look again </ActButton>
    </p>
    <p
      v-if="unchecked"
      class="note warn"
      role="status"
    >
      Whether this time is free could not be looked up. The booking itself checks it again.
    </p>
    <p
      v-if="warnings.length"
      class="note warn"
      role="status"
    >
      <b>Before you promise it:</b> {{ warnings.map((w) => w.text).join('; ') }}. Booking goes ahead
      with your name to it.
    </p>
    <p
      v-if="territory"
      class="small quiet"
    >
      The site is in <b>{{ territory }}</b>. <kbd>Alt W</kbd> holds the best opening; arrows move
      it.
    </p>
    <div
      v-if="schedule"
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
          :start="t.id === draft.technicianId ? startMs : null"
          :seconds="draft.durationSeconds"
          :name="chosen?.name ?? ''"
          @pick="(ms) => pick(t.id, ms)"
          @keydown="key($event, i)"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  padding: 14px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--sheet);
}
.wrap {
  flex-wrap: wrap;
  gap: 6px;
}
.wrap .btn {
  padding: 0 8px;
  min-height: 30px;
}
.told {
  align-self: end;
  padding-bottom: 7px;
}
.days {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.one {
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr);
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
