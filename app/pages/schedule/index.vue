<script setup lang="ts">
// The day: technicians down, hours across, the tray of what has no slot. Drag or keyboard; warnings before saving; undo.
import { computed, nextTick, onBeforeUnmount, onMounted, provide, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { plusDays } from '~~/core/time/zone'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { HOUR } from '~~/core/time/units'
import ActRefused from '~/components/dispatch/ActRefused.vue'
import BoardLane from '~/components/dispatch/BoardLane.vue'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
import TellSheet from '~/components/dispatch/TellSheet.vue'
import ReminderSheet from '~/components/dispatch/ReminderSheet.vue'
import VisitSheet from '~/components/dispatch/VisitSheet.vue'
import { call } from '~/lib/api'
import { fullness, shareTaken } from '~/lib/capacity'
import { keepEqual } from '~/lib/keepEqual'
import { TRYING, type Frame, type Lane, type Trying } from '~/lib/boardDay'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useScheduleAct } from '~/lib/useScheduleAct'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useBoard, type Place } from '~/stores/board'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import ActButton from '~/base/ActButton.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
type Visit = Answer<'placeVisit'>
const { session, route, date, may } = useScheduleDate()
const board = useBoard()
const filters = useScheduleFilter()
const { data, problem, refresh } = useLoad(
  () => call('schedule', { query: { date: date.value } }),
  0,
  SHOWS.day,
)
watch(date, () => void refresh())
const go = (d: string) => void navigateTo({ path: '/schedule', query: { date: d } })

const from = computed(() => Date.parse(data.value?.dayStart ?? ''))
const span = computed(() => Date.parse(data.value?.dayEnd ?? '') - from.value)
const pos = (iso: string | number) =>
  `${Math.max(0, Math.min(100, (((typeof iso === 'number' ? iso : Date.parse(iso)) - from.value) / span.value) * 100))}%`
const hours = computed(() =>
  Array.from(
    { length: Math.max(0, Math.round(span.value / HOUR)) },
    (_, i) => from.value + i * HOUR,
  ),
)
const now = ref(session.now())
const tick = setInterval(() => {
  now.value = session.now()
}, 20_000)
onBeforeUnmount(() => clearInterval(tick))

// A placement that is being tried: shown dashed, its warnings said, saved with Enter or by letting go.
const trying = ref<Trying | null>(null)
// Each row asks for itself whether it is tried there: a drag draws the rows that it leaves and enters, and not the page.
provide(TRYING, trying)
const tried = computed(() => trying.value !== null)
const tryingWarnings = computed(() => trying.value?.warnings.join('; ') ?? '')
const shownCount = computed(() => data.value?.visits.filter(filters.fits).length ?? 0)
const NONE: Lane = { visits: [], helps: [], held: [] }
/** What stands in each row; '' is the row of what nobody has yet. Visits of others that somebody goes along to are moved in the row of the one who leads. */
const lanes = computed((before?: Map<string, Lane>) => {
  const all = data.value
  return new Map<string, Lane>(
    (all ? ['', ...all.technicians.map((t) => t.id)] : []).map((id) => [
      id,
      keepEqual(before?.get(id), {
        visits: all!.visits.filter((v) => (v.technicianId ?? '') === id),
        helps: all!.visits.filter(
          (v) =>
            id !== '' &&
            v.technicianId !== id &&
            (v.crewIds.includes(id) || v.alongIds.includes(id)),
        ),
        held: all!.held.filter((h) => h.technicianId === id),
      }),
    ]),
  )
})
const frame = computed((before?: Frame) =>
  keepEqual(before, { from: from.value, span: span.value }),
)
// A time that nobody has yet stands in a row of its own, under the people.
const NOBODY = {
  id: '',
  name: 'Nobody yet',
  kind: 'employee',
  goesWith: null,
  skills: [],
  territories: [],
  working: [],
  timeOff: [],
  homeAt: null,
  homeDriveSeconds: 0,
}
const people = computed(() => [
  ...(data.value?.technicians ?? []).filter((t) => filters.shows(t.id)),
  ...(tried.value || lanes.value.get('')?.visits.length ? [NOBODY] : []),
])
/** What waits for a slot; a time without a person on this very day stands in its row instead. */
const tray = computed(() =>
  (data.value?.tray ?? []).filter((v) => !lanes.value.get('')?.visits.some((o) => o.id === v.id)),
)
const nameOf = (id: string | null) =>
  data.value?.technicians.find((t) => t.id === id)?.name.split(' ')[0] ?? ''
// The visit that is looked at closely; it stays in sight while it changes.
const openId = ref<string | null>(null)
const look = (id: string) => {
  openId.value = id
}
const opened = computed(
  () =>
    [...(data.value?.visits ?? []), ...(data.value?.tray ?? [])].find(
      (v) => v.id === openId.value,
    ) ?? null,
)
const reminding = ref(false)
const { failure, refused, act: doing } = useScheduleAct(refresh)
/** A visit as it stands when its turn has come: an act before it may have changed it. */
const asNow = (visit: Visit): Visit =>
  [...(data.value?.visits ?? []), ...(data.value?.tray ?? [])].find((v) => v.id === visit.id) ??
  visit
/** The same, where it still stands at the place that was seen; else the server is to say that somebody moved it. */
function asSeen(visit: Visit): Visit {
  const now = asNow(visit)
  const moved = now.technicianId !== visit.technicianId || now.startAt !== visit.startAt
  return moved || now.durationSeconds !== visit.durationSeconds ? visit : now
}
const toggleLock = (visit: Visit) =>
  doing(() => {
    const { id, version } = asSeen(visit)
    return call('lockVisit', { params: { id }, body: { version, locked: !visit.locked } })
  })
/** Times on the board are moved by a quarter of an hour. */
const STEP_SECONDS = 900
const half = (v: Visit) =>
  Math.max(1, Math.round(v.durationSeconds / 2 / STEP_SECONDS)) * STEP_SECONDS
/** An empty time becomes a call that holds it, with day, time and person set. */
function begin(e: MouseEvent, technicianId: string) {
  if (!may.value) return
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const at =
    from.value + Math.floor((((e.clientX - box.left) / box.width) * span.value) / 900_000) * 900_000
  void navigateTo({
    path: '/calls/new',
    query: {
      date: date.value,
      technician: technicianId || undefined,
      start: session.time(new Date(at).toISOString()),
    },
  })
}
let asked = 0
let soon: ReturnType<typeof setTimeout> | undefined
const keyOf = (t: Trying | null) =>
  t && [t.visit.id, t.place.technicianId, t.place.startAt, t.place.durationSeconds].join()
// Asked once the hand rests for a moment: a drag over the board passes a hundred places that nobody means.
watch(
  () => keyOf(trying.value),
  () => {
    clearTimeout(soon)
    soon = setTimeout(() => void check(), 120)
  },
)
async function check() {
  const t = trying.value
  if (!t?.place.technicianId || !t.place.startAt) return
  const mine = ++asked
  const { warnings } = await call('checkPlacement', {
    body: {
      visitId: t.visit.id,
      technicianId: t.place.technicianId,
      startAt: t.place.startAt,
      durationSeconds: t.place.durationSeconds,
      promiseFrom: t.visit.promiseFrom ?? '',
      promiseTo: t.visit.promiseTo ?? '',
      siteId: t.visit.siteId,
      skills: t.visit.skills,
    },
  }).catch(() => ({ warnings: [] }))
  if (mine === asked && trying.value) trying.value.warnings = warnings.map((w) => w.text)
}
const save = (visit: Visit, place: Place) =>
  doing(
    (override) =>
      board.place(asSeen(visit), place, override).finally(() => {
        trying.value = null
      }),
    // The keyboard goes on where it was, also when the card stands in another row now.
    () =>
      void nextTick(
        () =>
          refused.value ||
          document.querySelector<HTMLElement>(`[data-visit="${visit.id}"]`)?.focus(),
      ),
  )
const copy = (visit: Visit) =>
  doing(() => {
    const now = asNow(visit)
    return board.further(now, { split: false, durationSeconds: now.durationSeconds })
  })
const split = (visit: Visit) =>
  doing(() => {
    const now = asNow(visit)
    return board.further(now, { split: true, durationSeconds: half(now) })
  })
const redo = () => doing((override) => board.redo(override))
const undo = () => doing((override) => board.undo(override))

const telling = ref<string | null>(null)
const late = computed(() => data.value?.visits.filter((v) => v.atRisk) ?? [])
// Swapping: S takes the first, S on another one changes their places.
const swapping = ref<Visit | null>(null)
async function swap(visit: Visit) {
  const first = swapping.value
  if (!first || first.id === visit.id) return void (swapping.value = first ? null : visit)
  swapping.value = null
  await doing(() => board.swap(asSeen(first), asSeen(visit)))
}

// Drag by pointer: visits, their right edge, and cards of the tray.
const rows = ref<HTMLElement>()
// Where the rows stand, measured when a drag begins and when the board is scrolled: asking at each move would lay the page out again.
let boxes: { row: HTMLElement; box: DOMRect }[] = []
const measure = () => {
  boxes = [...(rows.value?.querySelectorAll<HTMLElement>('[data-technician]') ?? [])].map(
    (row) => ({ row, box: row.getBoundingClientRect() }),
  )
}
const QUARTER = 900_000
function placeAt(
  x: number,
  y: number,
  grab: number,
): { technicianId: string | null; startAt: string } | null {
  for (const { row, box } of boxes) {
    if (y < box.top || y > box.bottom || x < box.left || x > box.right) continue
    const ms = from.value + ((x - box.left - grab) / box.width) * span.value
    return {
      technicianId: row.dataset.technician || null,
      startAt: new Date(Math.max(from.value, Math.round(ms / QUARTER) * QUARTER)).toISOString(),
    }
  }
  return null
}
function drag(e: PointerEvent, visit: Visit, edge: boolean) {
  if (!may.value || e.button !== 0) return
  if (visit.locked && !e.altKey) return void (openId.value = visit.id)
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const inTray = !lanes.value.get(visit.technicianId ?? '')?.visits.some((v) => v.id === visit.id)
  const grab = inTray ? 20 : e.clientX - box.left
  const origin = { x: e.clientX, y: e.clientY }
  measure()
  const { width } = boxes[0]!.box
  let moved = false
  // With Alt it is not moved: a further visit of the same work order is put there.
  const another = e.altKey && !inTray && !edge
  const old: Place = {
    technicianId: visit.technicianId,
    startAt: visit.startAt,
    durationSeconds: visit.durationSeconds,
  }
  const pulled = (m: PointerEvent): Place => {
    const longer = (((m.clientX - origin.x) / width) * span.value) / 1000
    const steps = Math.round((visit.durationSeconds + longer) / STEP_SECONDS)
    return { ...old, durationSeconds: Math.max(1, steps) * STEP_SECONDS }
  }
  const carried = (m: PointerEvent): Place | null => {
    const to = placeAt(m.clientX, m.clientY, grab)
    return to && { ...old, ...to }
  }
  const move = (m: PointerEvent) => {
    if (!moved && Math.hypot(m.clientX - origin.x, m.clientY - origin.y) < 5) return
    // The row of what nobody has yet comes with the first move.
    if (!moved) void nextTick(measure)
    moved = true
    const place = edge ? pulled(m) : carried(m)
    const next = place ? { visit, place, warnings: trying.value?.warnings ?? [] } : null
    if (keyOf(next) !== keyOf(trying.value)) trying.value = next
  }
  const stop = () => {
    window.removeEventListener('pointermove', move)
    window.removeEventListener('scroll', measure, true)
    window.removeEventListener('pointerup', up)
    window.removeEventListener('keydown', esc)
  }
  const up = () => {
    stop()
    if (moved && trying.value && another) {
      const { technicianId, startAt } = trying.value.place
      trying.value = null
      void doing(() =>
        board.further(asNow(visit), {
          split: false,
          durationSeconds: visit.durationSeconds,
          technicianId,
          startAt,
        }),
      )
    } else if (moved && trying.value) void save(visit, trying.value.place)
    else if (!moved && !edge) openId.value = visit.id
  }
  const esc = (k: KeyboardEvent) => {
    if (k.key !== 'Escape') return
    stop()
    trying.value = null
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('scroll', measure, true)
  window.addEventListener('pointerup', up)
  window.addEventListener('keydown', esc)
  e.preventDefault()
  ;(e.currentTarget as HTMLElement).focus()
}
// The keyboard does the same: arrows try, Enter saves, Esc leaves it.
function key(e: KeyboardEvent, visit: Visit) {
  const rowsShown = [...people.value.filter((p) => p.id), NOBODY]
  const nextHour = Math.ceil(Math.max(now.value, from.value) / HOUR) * HOUR
  const current =
    trying.value?.visit.id === visit.id
      ? trying.value.place
      : {
          technicianId: visit.technicianId ?? (visit.startAt ? null : rowsShown[0]!.id || null),
          startAt:
            visit.startAt ??
            new Date(Math.min(nextHour, from.value + span.value - HOUR)).toISOString(),
          durationSeconds: visit.durationSeconds,
        }
  const at = rowsShown.findIndex((p) => p.id === (current.technicianId ?? ''))
  const shifted = (ms: number) => new Date(Date.parse(current.startAt!) + ms).toISOString()
  let place: Place | null = null
  if (e.shiftKey && e.key === 'ArrowRight')
    place = {
      ...current,
      durationSeconds: Math.min(86_400, current.durationSeconds + STEP_SECONDS),
    }
  else if (e.shiftKey && e.key === 'ArrowLeft')
    place = {
      ...current,
      durationSeconds: Math.max(STEP_SECONDS, current.durationSeconds - STEP_SECONDS),
    }
  else if (e.key === 'ArrowRight') place = { ...current, startAt: shifted(QUARTER) }
  else if (e.key === 'ArrowLeft') place = { ...current, startAt: shifted(-QUARTER) }
  else if (e.key === 'ArrowDown')
    place = {
      ...current,
      technicianId: rowsShown[Math.min(rowsShown.length - 1, at + 1)]!.id || null,
    }
  else if (e.key === 'ArrowUp')
    place = { ...current, technicianId: rowsShown[Math.max(0, at - 1)]!.id || null }
  else if (e.key === 'Enter') {
    if (trying.value?.visit.id === visit.id) void save(visit, trying.value.place)
    else openId.value = visit.id
  } else if (e.key === 'Escape') {
    trying.value = null
    swapping.value = null
  } else if (e.key.toLowerCase() === 's' && visit.startAt && may.value) void swap(visit)
  else if (e.key.toLowerCase() === 'l' && visit.startAt && may.value) void toggleLock(visit)
  else if (e.key.toLowerCase() === 'c' && may.value && !e.ctrlKey && !e.metaKey) void copy(visit)
  else if (
    e.key.toLowerCase() === 'x' &&
    may.value &&
    visit.durationSeconds >= 1800 &&
    !e.ctrlKey &&
    !e.metaKey
  )
    void split(visit)
  else if (e.key === 'Delete' && visit.startAt)
    void save(visit, { technicianId: null, startAt: null, durationSeconds: visit.durationSeconds })
  else return
  e.preventDefault()
  if (place && may.value && !visit.locked) trying.value = { visit, place, warnings: [] }
  else if (place && visit.locked) failure.value = 'This visit is locked where it is. L unlocks it.'
}
function keys(e: KeyboardEvent) {
  if ((e.target as HTMLElement).closest('input, textarea')) return
  if (
    (e.ctrlKey || e.metaKey) &&
    (e.key.toLowerCase() === 'y' || (e.shiftKey && e.key.toLowerCase() === 'z'))
  )
    void redo()
  else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') void undo()
  else if (e.key === '[') go(plusDays(date.value, -1))
  else if (e.key === ']') go(plusDays(date.value, 1))
  else return
  e.preventDefault()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <div
    v-if="data"
    class="views"
  >
    <ScheduleBar
      :date="data.date"
      :technicians="data.technicians"
      :shown="shownCount"
      :of="data.visits.length"
    />
    <div class="board">
      <aside aria-label="No slot yet">
        <h2>
          No slot yet <span class="num">{{ tray.length }}</span>
        </h2>
        <div
          v-for="v in tray"
          :key="v.id"
          class="card"
          :class="{
            dim:
              filters.active &&
              !filters.fits({ ...v, technicianId: filters.filter.technicianIds[0] ?? null }),
            late: v.waiting.includes('today') || v.waiting.includes('passed'),
          }"
          tabindex="0"
          role="button"
          :data-visit="v.id"
          :aria-label="`${v.title}, ${v.customer}. ${v.waiting}. Arrow keys place it.`"
          @pointerdown="drag($event, v, false)"
          @keydown="key($event, v)"
        >
          <b>{{ v.title }}</b><span>{{ v.customer }} · {{ v.town }}</span
          ><span class="quiet small"
            >{{ v.waiting }} · {{ hoursMinutes(v.durationSeconds) }} h</span
          >
        </div>
        <p
          v-if="!tray.length"
          class="quiet"
        >
          Everything has its time.
        </p>
      </aside>
      <div class="day">
        <nav
          class="tabs"
          aria-label="Days of the week"
        >
          <button
            v-for="d in data.week"
            :key="d.date"
            :class="{ on: d.date === data.date }"
            :aria-current="d.date === data.date ? 'date' : undefined"
            @click="go(d.date)"
          >
            <span>{{ session.day(d.date) }}</span>
            <span
              class="bar"
              :title="`Morning: ${d.morning} of ${d.capacityMorning}`"
              ><i>AM</i
              ><em
                ><u
                  :class="fullness(d.morning, d.capacityMorning)"
                  :style="{ width: shareTaken(d.morning, d.capacityMorning) }" /></em
              ><b class="num">{{ d.morning }}/{{ d.capacityMorning }}</b></span
            >
            <span
              class="bar"
              :title="`Afternoon: ${d.afternoon} of ${d.capacityAfternoon}`"
              ><i>PM</i
              ><em
                ><u
                  :class="fullness(d.afternoon, d.capacityAfternoon)"
                  :style="{ width: shareTaken(d.afternoon, d.capacityAfternoon) }" /></em
              ><b class="num">{{ d.afternoon }}/{{ d.capacityAfternoon }}</b></span
            >
          </button>
        </nav>
        <div class="head">
          <h1>{{ session.day(data.date, true) }}</h1>
          <span
            v-if="data.holiday"
            class="chip soon"
            >{{ data.holiday }}</span><span class="quiet num"
            >{{ data.visits.length }} visits · {{ hoursMinutes(data.driveSeconds) }} h driving</span
          >
          <details
            v-if="late.length"
            class="risk"
          >
            <summary class="late nowrap">
              <b>{{ late.length }} {{ late.length === 1 ? 'promise' : 'promises' }} at risk</b>
            </summary>
            <div class="sheet">
              <div
                v-for="v in late"
                :key="v.id"
                class="row"
              >
                <span class="grow"
                  ><b>{{ v.customer }}</b
                  >{{ ' '
                  }}<span class="small"
                    >promised until {{ v.promiseTo }}, expected {{ session.time(v.arriveAt) }}</span
                  ></span
                ><ActButton
                  v-if="may"
                  :aria-label="`Tell ${v.customer}`"
                  @click="telling = v.id"
                >
                  Tell them…
                </ActButton>
              </div>
              <p
                v-if="may"
                class="quiet small"
              >
                Or move a visit, swap two with <kbd>S</kbd>, or plan the day.
              </p>
            </div>
          </details>
          <span class="grow" />
          <ActButton
            title="Week before"
            aria-label="Week before"
            @click="go(plusDays(data.date, -7))"
          >
            ←</ActButton
          ><ActButton @click="go(session.today)"> Today</ActButton
          ><ActButton
            title="Week after"
            aria-label="Week after"
            @click="go(plusDays(data.date, 7))"
          >
            →
          </ActButton>
          <ActButton
            v-if="may && data.date > session.today && data.visits.length"
            @click="reminding = true"
          >
            Remind customers…
          </ActButton>
          <ActButton
            v-if="may"
            :disabled="!board.done.length"
            @click="undo"
          >
            Undo <kbd>Ctrl Z</kbd></ActButton
          ><ActButton
            v-if="may"
            :disabled="!board.undone.length"
            title="Ctrl Y"
            @click="redo"
          >
            Redo
          </ActButton>
        </div>
        <div class="says">
          <p
            v-if="problem || failure"
            class="note bad"
            role="alert"
          >
            {{ failure || problem?.message }}
          </p>
          <ActRefused
            v-if="refused"
            :text="refused.text"
            @again="refused.again()"
            @leave="refused = null"
          />
          <p
            v-else-if="swapping"
            class="note row"
            role="status"
          >
            <span class="grow"
              >{{ swapping.customer }} changes places with… press <kbd>S</kbd> on another visit, or
              <kbd>Esc</kbd>.</span
            >
          </p>
          <p
            v-else-if="tryingWarnings"
            class="note warn"
            role="status"
          >
            {{ tryingWarnings }}
          </p>
        </div>
        <div
          ref="rows"
          class="grid"
          role="grid"
          aria-label="The day by technician"
        >
          <div class="scale">
            <span
              v-for="h in hours"
              :key="h"
              class="num"
              :style="{ left: pos(h) }"
              >{{ session.time(new Date(h).toISOString()) }}</span
            >
            <span
              v-if="data.date === session.today && now >= from && now <= from + span"
              class="nowtag num"
              :style="{ left: pos(now) }"
              >{{ session.time(new Date(now).toISOString()) }}</span
            >
          </div>
          <BoardLane
            v-for="t in people"
            :key="t.id"
            :technician="t"
            :lane="lanes.get(t.id) ?? NONE"
            :frame="frame"
            :date="data.date"
            :now="data.date === session.today ? now : null"
            :may="may"
            :fresh="String(route.query.visit ?? '')"
            :name-of="nameOf"
            @begin="begin"
            @grab="drag"
            @keys="key"
            @look="look"
          />
        </div>
        <p
          v-if="!data.technicians.length"
          class="empty"
        >
          Nobody can be booked yet.
        </p>
        <TellSheet
          :visit-id="telling"
          @close="telling = null"
        />
        <ReminderSheet
          :date="reminding ? data.date : null"
          @close="reminding = false"
        />
      </div>
    </div>
    <VisitSheet
      :visit="opened"
      :may="may"
      :technicians="data.technicians"
      :visits="data.visits"
      @close="openId = null"
      @changed="refresh()"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    says="Opening the day…"
  />
</template>

<style scoped>
.risk {
  position: relative;
}
.risk summary {
  cursor: pointer;
}
.risk > div {
  position: absolute;
  z-index: 20;
  top: 28px;
  left: 0;
  width: 440px;
  padding: 10px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.views {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.board {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
}
.dim {
  opacity: 0.3;
}
aside {
  border-right: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 12px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
aside h2 {
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
/* What is said lies over the head: rows must not move under the pointer. */
.says {
  position: absolute;
  top: 73px;
  left: 14px;
  right: 14px;
  z-index: 20;
}
.day {
  position: relative;
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow: auto;
}
.tabs {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
  flex: none;
}
.tabs button {
  border: 0;
  border-right: 1px solid var(--rule);
  background: none;
  padding: 7px 9px;
  text-align: left;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.tabs .on {
  background: var(--green-1);
  font-weight: 650;
}
.bar {
  display: flex;
  gap: 5px;
  align-items: center;
  font-size: 10px;
  color: var(--ink-2);
  font-weight: 400;
}
.bar i {
  font-style: normal;
  width: 16px;
}
.bar em {
  flex: 1;
  height: 7px;
  background: #e6ebe8;
}
.bar u {
  display: block;
  height: 100%;
  background: var(--green-2);
}
.bar u.full {
  background: #d9a53c;
}
.bar u.over {
  background: var(--brick);
}
.bar b {
  font-weight: 400;
  width: 30px;
  text-align: right;
}
.head .btn {
  padding: 0 9px;
}
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 10px 14px;
  flex: none;
}
.head h1 {
  font-size: 16px;
  white-space: nowrap;
}
.grid {
  background: var(--sheet);
  border-top: 1px solid var(--rule-2);
}
.scale {
  position: relative;
  height: 26px;
  margin-left: 128px;
  border-bottom: 1px solid var(--rule-2);
}
.scale span {
  position: absolute;
  top: 5px;
  font-size: 12px;
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
</style>
