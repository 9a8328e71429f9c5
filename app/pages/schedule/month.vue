<script setup lang="ts">
// The month at a glance: how full each day is, morning and afternoon, and who is away. A day leads to its schedule.
import { sayMonth } from '~~/core/time/sayDay'
import { localDate, plusDays, plusMonths, weekday } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import RangePage from '~/components/dispatch/RangePage.vue'
import { fullness, shareTaken } from '~/lib/capacity'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
type Range = Answer<'scheduleRange'>
const session = useSession()
const filters = useScheduleFilter()
/** Whole weeks, from the Monday before the first to the Sunday after the last. */
const span = (date: string) => {
  const first = `${date.slice(0, 8)}01`
  const last = plusDays(plusMonths(first, 1), -1)
  return { from: plusDays(first, 1 - weekday(first)), to: plusDays(last, 7 - weekday(last)) }
}
const inMonth = (day: string, shown: string) => day.slice(0, 7) === shown.slice(0, 7)
const own = (data: Range, date: string) =>
  data.cells.filter((c) => c.date === date && filters.shows(c.technicianId))
const sum = (
  data: Range,
  date: string,
  key: 'morning' | 'afternoon' | 'capacityMorning' | 'capacityAfternoon',
) => own(data, date).reduce((n, c) => n + c[key], 0)
const on = (visits: Range['visits'], date: string) =>
  visits.filter((v) => v.startAt && localDate(Date.parse(v.startAt), session.zone) === date).length
const away = (data: Range, date: string) =>
  data.technicians
    .filter(
      (t) =>
        filters.shows(t.id) &&
        own(data, date).some((c) => c.technicianId === t.id && c.works && c.away),
    )
    .map(
      (t) =>
        `${t.name.split(' ')[0]}: ${own(data, date).find((c) => c.technicianId === t.id)!.away}`,
    )
const HALVES = [
  ['morning', 'capacityMorning', 'AM'],
  ['afternoon', 'capacityAfternoon', 'PM'],
] as const
const month = (date: string) => sayMonth(date.slice(0, 7), session.locale)
</script>

<template>
  <RangePage
    v-slot="{ data, shown, date }"
    :title="(from, to) => month(plusDays(from, 10) > to ? from : plusDays(from, 10))"
    :span="span"
    step="month"
  >
    <div class="month">
      <b
        v-for="d in data.days.slice(0, 7)"
        :key="d.date"
        class="small quiet"
        >{{ session.day(d.date, 'weekday') }}</b
      >
      <NuxtLink
        v-for="d in data.days"
        :key="d.date"
        :to="{ path: '/schedule', query: { date: d.date } }"
        class="d"
        :class="{
          other: !inMonth(d.date, date),
          today: d.date === session.today,
          closed: own(data, d.date).every((c) => !c.works),
        }"
        :aria-label="`${session.day(d.date)}: ${on(shown, d.date)} visits`"
      >
        <span class="row"
          ><b class="num">{{ Number(d.date.slice(8)) }}</b
          ><span class="grow" /><span
            v-if="on(shown, d.date)"
            class="num small"
            >{{ on(shown, d.date) }}</span
          ></span
        >
        <span
          v-if="d.holiday"
          class="chip soon"
          >{{ d.holiday }}</span
        >
        <template v-else-if="own(data, d.date).some((c) => c.works)"
          ><span
            v-for="[taken, most, name] in HALVES"
            :key="name"
            class="bar"
            ><i>{{ name }}</i
            ><em
              ><u
                :class="fullness(sum(data, d.date, taken), sum(data, d.date, most))"
                :style="{
                  width: shareTaken(sum(data, d.date, taken), sum(data, d.date, most)),
                }" /></em
            ><span class="num"
              >{{ sum(data, d.date, taken) }}/{{ sum(data, d.date, most) }}</span
            ></span
          ></template
        >
        <span
          v-for="a in away(data, d.date).slice(0, 2)"
          :key="a"
          class="small quiet clip"
          >{{ a }}</span
        >
      </NuxtLink>
    </div>
  </RangePage>
</template>

<style scoped>
.month {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 1px;
  background: var(--rule);
  border-top: 1px solid var(--rule-2);
  min-height: 100%;
  grid-auto-rows: minmax(86px, 1fr);
  grid-template-rows: 24px;
}
.month > b {
  background: var(--sheet);
  padding: 3px 8px;
}
.d {
  background: var(--sheet);
  padding: 5px 8px;
  display: flex;
  flex-direction: column;
  gap: 3px;
  text-decoration: none;
  color: var(--ink);
  min-width: 0;
}
.other {
  background: #f7f9f8;
  color: var(--ink-2);
}
.today {
  background: var(--green-1);
}
.closed {
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
}
.bar {
  display: flex;
  gap: 5px;
  align-items: center;
  font-size: 0.65625rem;
  color: var(--ink-2);
}
.bar i {
  font-style: normal;
  width: 17px;
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
</style>
