<script setup lang="ts">
// The day: technicians down and hours across, or turned; the tray of what has no slot. Drag or keyboard; warnings before saving; undo.
// The board keeps its own drawing: no table of the kit has rows of time.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { plusDays } from '~~/core/time/zone'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { BOARD_KEYS, dayKeys } from '~/dispatch/day/boardShortcuts'
import { useShortcuts } from '~/lib/shortcuts'
import ActButton from '~/base/ActButton.vue'
import Pending from '~/base/Pending.vue'
import BoardLane from '~/components/dispatch/BoardLane.vue'
import ReminderSheet from '~/dispatch/visit/ReminderSheet.vue'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
import { telling } from '~/dispatch/visit/telling'
import VisitSheet from '~/dispatch/visit/VisitSheet.vue'
import BoardSays from '~/dispatch/day/BoardSays.vue'
import BoardTray from '~/dispatch/day/BoardTray.vue'
import PromisesAtRisk from '~/dispatch/day/PromisesAtRisk.vue'
import { timeAt } from '~/dispatch/day/steps'
import TimeScale from '~/dispatch/day/TimeScale.vue'
import { useBoardActs } from '~/dispatch/day/useBoardActs'
import { useBoardDrag } from '~/dispatch/day/useBoardDrag'
import { useBoardKeys } from '~/dispatch/day/useBoardKeys'
import { NO_LANE, useDay, type Visit } from '~/dispatch/day/useDay'
import { NAMES_PX, turnedHeight, useTurned } from '~/dispatch/day/useTurned'
import { useTrying } from '~/dispatch/day/useTrying'
import UndoActs from '~/dispatch/UndoActs.vue'
import WeekTabs from '~/dispatch/day/WeekTabs.vue'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useScheduleFilter } from '~/stores/scheduleFilter'

definePageMeta({ layout: 'office' })
const NOW_MS = 20_000
const { session, route, date, may } = useScheduleDate()
const filters = useScheduleFilter()
const { trying, tried, warnings } = useTrying()
const { day, problem, refresh, frame, lanes, people, tray, visitOf, nameOf } = useDay(date, tried)
const acts = useBoardActs(trying, visitOf, refresh)
const { failure, refused, swapping, undo, redo } = acts
// What is said, asked or begun is about the day that it was said on.
watch(date, () => {
  failure.value = ''
  refused.value = swapping.value = trying.value = null
})
const go = (to: string) => void navigateTo({ path: '/schedule', query: { date: to } })

const now = ref(session.now())
const tick = setInterval(() => {
  now.value = session.now()
}, NOW_MS)
onBeforeUnmount(() => clearInterval(tick))
const shownNow = computed(() => (day.value?.date === session.today ? now.value : null))
const shownCount = computed(() => day.value?.visits.filter(filters.fits).length ?? 0)
const late = computed(() => day.value?.visits.filter((v) => v.atRisk) ?? [])

// The visit that is looked at closely; it stays in sight while it changes.
const openId = ref<string | null>(String(route.query.open ?? '') || null)
const opened = computed(() => visitOf(openId.value) ?? null)
const open = (visit: Pick<Visit, 'id'>) => {
  openId.value = visit.id
}
const reminding = ref(false)

const rows = ref<HTMLElement>()
const isPlaced = (visit: Visit) =>
  Boolean(lanes.value.get(visit.technicianId ?? '')?.visits.some((v) => v.id === visit.id))
const turned = useTurned()
const { drag } = useBoardDrag({ may, frame, turned, trying, rows, isPlaced, open, ...acts })
const key = useBoardKeys({
  may,
  now,
  ...{ frame, turned },
  trying,
  rows: () => [...people.value.filter((p) => p.id).map((p) => p.id), null],
  open,
  refuse: (sentence) => {
    failure.value = sentence
  },
  ...acts,
})
/** An empty time becomes a call that holds it, with day, time and person set. */
function begin(e: MouseEvent, technicianId: string) {
  if (!may.value) return
  const start = session.time(timeAt(e, frame.value, turned.value))
  const query = { date: date.value, technician: technicianId || undefined, start }
  void navigateTo({ path: '/calls/new', query })
}
const byDays = (days: number) => go(plusDays(date.value, days))
useShortcuts([...BOARD_KEYS, ...dayKeys(byDays)])
</script>

<template>
  <div
    v-if="day"
    class="views"
  >
    <ScheduleBar
      :date="day.date"
      :technicians="day.technicians"
      :shown="shownCount"
      :of="day.visits.length"
    />
    <div class="board stacks">
      <BoardTray
        :visits="tray"
        @grab="drag"
        @keys="key"
      />
      <div class="day">
        <WeekTabs
          :week="day.week"
          :date="day.date"
          @go="go"
        />
        <div class="head">
          <h1>{{ session.day(day.date, 'long') }}</h1>
          <span
            v-if="day.holiday"
            class="chip soon"
            >{{ day.holiday }}</span
          >
          <span class="quiet num"
            >{{ day.visits.length }} visits · {{ hoursMinutes(day.driveSeconds) }} h driving</span
          >
          <PromisesAtRisk
            :visits="late"
            :may="may"
            @tell="telling = $event"
          />
          <span class="grow" />
          <ActButton
            :on="turned"
            title="Let the hours run down, or across"
            :aria-pressed="turned"
            @click="turned = !turned"
          >
            Turn
          </ActButton>
          <ActButton
            title="Week before"
            aria-label="Week before"
            @click="go(plusDays(day.date, -7))"
          >
            ←
          </ActButton>
          <ActButton @click="go(session.today)"> Today</ActButton>
          <ActButton
            title="Week after"
            aria-label="Week after"
            @click="go(plusDays(day.date, 7))"
          >
            →
          </ActButton>
          <template v-if="may">
            <ActButton
              v-if="day.date > session.today && day.visits.length"
              @click="reminding = true"
            >
              Remind customers…
            </ActButton>
            <UndoActs
              :undo="undo"
              :redo="redo"
            />
          </template>
        </div>
        <div
          ref="rows"
          class="grid"
          :class="{ turned }"
          :style="{ '--day': `${turnedHeight(frame)}px`, '--head': `${NAMES_PX}px` }"
          role="grid"
          aria-label="The day by technician"
        >
          <span
            v-if="turned"
            class="corner"
            aria-hidden="true"
          />
          <TimeScale
            :frame="frame"
            :now="shownNow"
            :turned="turned"
          />
          <BoardLane
            v-for="t in people"
            :key="t.id"
            :technician="t"
            :lane="lanes.get(t.id) ?? NO_LANE"
            :frame="frame"
            :date="day.date"
            :now="shownNow"
            :may="may"
            :turned="turned"
            :fresh="String(route.query.visit ?? '')"
            :name-of="nameOf"
            @begin="begin"
            @grab="drag"
            @keys="key"
            @look="(id) => open({ id })"
          />
        </div>
        <BoardSays
          v-model:failure="failure"
          v-model:refused="refused"
          :problem="problem"
          :swapping="swapping"
          :warnings="warnings"
        />
        <p
          v-if="!day.technicians.length"
          class="empty"
        >
          Nobody can be booked yet.
        </p>
        <ReminderSheet
          :date="reminding ? day.date : null"
          @close="reminding = false"
        />
      </div>
    </div>
    <VisitSheet
      :visit="opened"
      :may="may"
      :technicians="day.technicians"
      :visits="day.visits"
      @close="openId = null"
      @changed="refresh()"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Opening the day…"
  />
</template>

<style scoped>
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
.day {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.head .btn {
  padding: 0 9px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 10px 14px;
  flex: none;
}
.head h1 {
  font-size: 1rem;
  white-space: nowrap;
}
.grid {
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: var(--sheet);
  border-top: 1px solid var(--rule-2);
}
/* A column to a person; it is as high as its hours, and runs off to the side where there are many. */
.grid.turned {
  display: flex;
  align-items: stretch;
}
.grid.turned > :deep(*) {
  height: var(--day);
}
.grid.turned > :deep(.scale) {
  height: calc(var(--day) - var(--head));
}
/* Between the hours and the names, over both of them as they are scrolled. */
.grid.turned > .corner {
  position: sticky;
  inset: 0 auto auto 0;
  flex: none;
  width: 54px;
  height: var(--head);
  margin-right: -54px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
  z-index: 9;
}
@media (max-width: 700px) {
  .views {
    height: auto;
  }
}
</style>
