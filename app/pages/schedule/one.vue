<script setup lang="ts">
// One technician's day as it will be driven: time runs down, drives stand between the visits, and the way home at the end.
import { computed, onBeforeUnmount, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { plusDays } from '~~/core/time/zone'
import { HOUR } from '~~/core/time/units'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
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
const openId = ref<string | null>(null)
const opened = computed(() => data.value?.visits.find((v) => v.id === openId.value) ?? null)
const PX = 72
const from = computed(() => Date.parse(data.value?.dayStart ?? ''))
const span = computed(() => Date.parse(data.value?.dayEnd ?? '') - from.value)
const y = (iso: string | number) =>
  (((typeof iso === 'number' ? iso : Date.parse(iso)) - from.value) / HOUR) * PX
const hours = computed(() =>
  Array.from(
    { length: Math.max(0, Math.round(span.value / HOUR)) + 1 },
    (_, i) => from.value + i * HOUR,
  ),
)
const begins = (v: (typeof visits.value)[number]) => Date.parse(v.arriveAt ?? v.startAt!)
const ends = (v: (typeof visits.value)[number]) =>
  Date.parse(v.finishAt ?? '') || begins(v) + v.durationSeconds * 1000
const driven = computed(
  () => visits.value.reduce((n, v) => n + v.driveSeconds, 0) + (who.value?.homeDriveSeconds ?? 0),
)
const now = ref(session.now())
const tick = setInterval(() => {
  now.value = session.now()
}, 20_000)
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
onBeforeUnmount(() => clearInterval(tick))
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
      class="body"
    >
      <div
        class="down"
        :style="{ height: `${(span / HOUR) * PX + 40}px` }"
        role="list"
        :aria-label="`The day of ${who.name}`"
      >
        <span
          v-for="h in hours"
          :key="h"
          class="hour num"
          :style="{ top: `${y(h)}px` }"
          >{{ session.time(new Date(h).toISOString()) }}</span
        >
        <span
          v-for="(w, i) in who.working"
          :key="`w${i}`"
          class="working"
          :style="{ top: `${y(w.from)}px`, height: `${y(w.to) - y(w.from)}px` }"
        />
        <span
          v-for="(o, i) in who.timeOff"
          :key="`o${i}`"
          class="off small"
          :style="{
            top: `${Math.max(0, y(o.from))}px`,
            height: `${Math.min((span / HOUR) * PX, y(o.to)) - Math.max(0, y(o.from))}px`,
          }"
          >{{ o.reason }}</span
        >
        <template
          v-for="v in visits"
          :key="v.id"
        >
          <span
            v-if="v.driveSeconds && v.technicianId === who.id"
            class="drive"
            :style="{
              top: `${y(begins(v) - v.driveSeconds * 1000)}px`,
              height: `${(v.driveSeconds / 3600) * PX}px`,
            }"
            ><i class="num">{{ Math.round(v.driveSeconds / 60) }} min drive</i></span
          >
          <span
            v-if="v.promiseStart && v.promiseEnd"
            class="promise"
            :class="{ risk: v.atRisk }"
            :style="{
              top: `${y(v.promiseStart)}px`,
              height: `${y(v.promiseEnd) - y(v.promiseStart)}px`,
            }"
            :title="`Promised ${v.promiseFrom}–${v.promiseTo}`"
          />
          <button
            class="visit"
            role="listitem"
            :class="[v.state, { risk: v.atRisk, dim: filters.active && !filters.fits(v) }]"
            :style="{
              top: `${y(begins(v))}px`,
              height: `${Math.max(26, y(ends(v)) - y(begins(v)) - 2)}px`,
            }"
            @click="openId = v.id"
          >
            <b
              >{{ session.time(new Date(begins(v)).toISOString()) }}–{{
                session.time(new Date(ends(v)).toISOString())
              }}
              {{ v.title }}</b
            ><span>{{ v.customer }}, {{ v.place }}, {{ v.town }}</span
            ><span class="small">{{
              [
                v.promiseFrom ? `promised ${v.promiseFrom}–${v.promiseTo}` : '',
                v.technicianId === who.id
                  ? ''
                  : `with ${data.technicians.find((t) => t.id === v.technicianId)?.name.split(' ')[0]}`,
                v.atRisk ? `expected ${session.time(v.arriveAt)}` : '',
                v.contact,
              ]
                .filter(Boolean)
                .join(' · ')
            }}</span>
          </button>
        </template>
        <span
          v-if="who.homeAt"
          class="home small"
          :style="{ top: `${y(who.homeAt)}px` }"
          >home at {{ session.time(who.homeAt) }}, {{ Math.round(who.homeDriveSeconds / 60) }} min
          drive</span
        >
        <span
          v-if="data.date === session.today && now >= from && now <= from + span"
          class="now"
          :style="{ top: `${y(now)}px` }"
        />
      </div>
      <aside>
        <h2>{{ who.name }}</h2>
        <dl>
          <dt>Visits</dt>
          <dd class="num">{{ visits.length }}</dd>
          <dt>Driving</dt>
          <dd class="num">{{ hoursMinutes(driven) }} h</dd>
          <dt>Work</dt>
          <dd class="num">
            {{ hoursMinutes(visits.reduce((n, v) => n + v.durationSeconds, 0)) }} h
          </dd>
          <dt>Home at</dt>
          <dd class="num">{{ who.homeAt ? session.time(who.homeAt) : '–' }}</dd>
          <dt>Skills</dt>
          <dd>{{ who.skills.join(', ') || '–' }}</dd>
          <dt>Serves</dt>
          <dd>{{ who.territories.join(', ') || 'everywhere' }}</dd>
        </dl>
        <p
          v-if="!who.working.length"
          class="note warn"
        >
          Does not work on this day.
        </p>
        <p
          v-else-if="!visits.length"
          class="quiet"
        >
          Nothing is booked yet.
        </p>
      </aside>
    </div>
    <p
      v-else
      class="empty"
    >
      Nobody can be booked yet.
    </p>
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
.views {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  flex: none;
}
.head h1 {
  font-size: 16px;
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
.down {
  position: relative;
  margin: 10px 20px 0 0;
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px) 70px 0 no-repeat;
}
.hour {
  position: absolute;
  left: 0;
  width: 62px;
  text-align: right;
  font-size: 12px;
  color: var(--ink-2);
  transform: translateY(-8px);
}
.hour::after {
  content: '';
  position: absolute;
  left: 70px;
  top: 8px;
  width: 2000px;
  max-width: 60vw;
  border-top: 1px solid var(--rule);
}
.working {
  position: absolute;
  left: 70px;
  right: 0;
  background: var(--sheet);
  border-left: 3px solid var(--green-2);
}
.off {
  position: absolute;
  left: 73px;
  right: 0;
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
  padding: 2px 12px;
  color: var(--ink-2);
  text-align: right;
}
.promise {
  position: absolute;
  left: 84px;
  width: 7px;
  border: 1.5px solid var(--ink-2);
  border-right: 0;
  z-index: 2;
}
.promise.risk {
  border-color: var(--brick);
}
.drive {
  position: absolute;
  left: 120px;
  border-left: 2px dotted var(--ink-2);
  z-index: 2;
}
.drive i {
  position: absolute;
  left: 8px;
  top: 50%;
  transform: translateY(-50%);
  font-style: normal;
  font-size: 12px;
  color: var(--ink-2);
  white-space: nowrap;
  background: var(--sheet);
  padding: 0 3px;
}
.visit {
  position: absolute;
  left: 100px;
  right: 12px;
  border: 1.5px solid var(--steel);
  border-radius: 4px;
  background: var(--sheet);
  padding: 3px 10px;
  overflow: hidden;
  z-index: 3;
  text-align: left;
  display: flex;
  flex-direction: column;
  cursor: pointer;
  color: var(--ink);
  line-height: 1.3;
}
.on_site,
.paused {
  background: var(--green);
  border-color: var(--green);
  color: #fff;
}
.finished {
  background: #eef3f0;
  border-color: var(--rule-2);
  color: var(--ink-2);
}
.driving {
  border-style: dashed;
}
.visit.risk {
  background: var(--brick-1);
  border-color: var(--brick);
  color: var(--ink);
}
.dim {
  opacity: 0.3;
}
.home {
  position: absolute;
  left: 100px;
  padding-top: 2px;
  color: var(--ink-2);
  z-index: 2;
  background: var(--sheet);
}
.now {
  position: absolute;
  left: 66px;
  right: 0;
  border-top: 2px solid var(--marigold-line);
  z-index: 5;
  pointer-events: none;
}
aside {
  border-left: 1px solid var(--rule-2);
  padding: 12px 14px;
  position: sticky;
  top: 0;
  align-self: start;
}
dl {
  display: grid;
  grid-template-columns: 80px 1fr;
  gap: 4px;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
</style>
