<script setup lang="ts">
// One technician's day as it will be driven: time runs down, drives stand between the visits, and the way home at the end.
import { computed, ref } from 'vue'
import { plusDays } from '~~/core/time/zone'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
import DayBeside from '~/dispatch/one/DayBeside.vue'
import TechnicianDay from '~/dispatch/one/TechnicianDay.vue'
import BoardSays from '~/dispatch/day/BoardSays.vue'
import { useUndo } from '~/dispatch/useUndo'
import UndoActs from '~/dispatch/UndoActs.vue'
import VisitSheet from '~/dispatch/visit/VisitSheet.vue'
import { SHOWS } from '~/lib/live'
import { dayKeys } from '~/dispatch/day/boardShortcuts'
import { useShortcuts } from '~/lib/shortcuts'
import { useAnswer } from '~/lib/useAnswer'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import ActButton from '~/base/ActButton.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const { session, route, date, may } = useScheduleDate()
const filters = useScheduleFilter()
const { data, problem, refresh } = useAnswer(
  'schedule',
  () => ({ query: { date: date.value } }),
  SHOWS.day,
)
const people = computed(() => (data.value?.technicians ?? []).filter((t) => filters.shows(t.id)))
const who = computed(
  () =>
    data.value?.technicians.find((t) => t.id === route.query.technician) ?? people.value[0] ?? null,
)
const go = (d: string, technician = who.value?.id) =>
  void navigateTo({ path: '/schedule/one', query: { date: d, technician } })
const visits = computed(() =>
  (data.value?.visits ?? []).filter(
    (v) =>
      who.value &&
      (v.technicianId === who.value.id ||
        v.crewIds.includes(who.value.id) ||
        v.alongIds.includes(who.value.id)),
  ),
)
const { failure, refused, undo, redo } = useUndo(refresh)
const openId = ref<string | null>(null)
const opened = computed(() => data.value?.visits.find((v) => v.id === openId.value) ?? null)
/** The technician who stands so far from the one that is shown. */
function byPerson(step: 1 | -1) {
  const at = people.value.findIndex((p) => p.id === who.value?.id)
  const next = people.value[at + step]
  if (next) go(date.value, next.id)
}
useShortcuts([
  { keys: 'Page Up', press: 'PageUp', does: 'technician before', run: () => byPerson(-1) },
  { keys: 'Page Down', press: 'PageDown', does: 'technician after', run: () => byPerson(1) },
  ...dayKeys((by) => go(plusDays(date.value, by))),
])
</script>

<template>
  <div
    v-if="data"
    class="views"
  >
    <ScheduleBar
      :date="data.date"
      :technicians="data.technicians"
    />
    <div class="head">
      <h1>{{ session.day(data.date, 'long') }}</h1>
      <div
        class="row who"
        role="tablist"
        aria-label="Technicians"
      >
        <ActButton
          v-for="t in people"
          :key="t.id"
          role="tab"
          :on="t.id === who?.id"
          :aria-selected="t.id === who?.id"
          @click="go(data.date, t.id)"
        >
          {{ t.name.split(' ')[0] }}
        </ActButton>
      </div>
      <span class="grow" />
      <ActButton
        aria-label="Day before"
        @click="go(plusDays(data.date, -1))"
      >
        ←</ActButton
      ><ActButton @click="go(session.today)"> Today</ActButton
      ><ActButton
        aria-label="Day after"
        @click="go(plusDays(data.date, 1))"
      >
        →
      </ActButton>
      <UndoActs
        v-if="may"
        :undo="undo"
        :redo="redo"
      />
      <a
        v-if="who"
        class="btn"
        :href="`/api/v1/schedule/${data.date}/day-sheets.pdf?technician=${who.id}`"
        target="_blank"
        >Their sheet</a
      >
    </div>
    <div
      v-if="who"
      class="body stacks"
      role="region"
      aria-label="From the first hour to the last"
      tabindex="0"
    >
      <TechnicianDay
        :day="data"
        :who="who"
        :visits="visits"
        @open="openId = $event"
      />
      <DayBeside
        :who="who"
        :visits="visits"
      />
    </div>
    <p
      v-else
      class="empty"
    >
      Nobody can be booked yet.
    </p>
    <BoardSays
      v-model:failure="failure"
      v-model:refused="refused"
    />
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
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  flex: none;
}
.head h1 {
  font-size: 1rem;
  white-space: nowrap;
}
.who {
  gap: 4px;
}
.who .btn {
  padding: 0 9px;
}
.body {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  background: var(--sheet);
  border-top: 1px solid var(--rule-2);
}
@media (max-width: 700px) {
  .views {
    height: auto;
  }
}
</style>
