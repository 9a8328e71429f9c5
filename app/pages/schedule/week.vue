<script setup lang="ts">
// The week by technician: what is taken of the morning and of the afternoon, who is away, and what a territory could still sell.
import { localDate, plusDays, weekday } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import RangePage from '~/components/dispatch/RangePage.vue'
import { fullness } from '~/lib/capacity'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
type Range = Answer<'scheduleRange'>
const session = useSession()
const filters = useScheduleFilter()
const span = (date: string) => {
  const from = plusDays(date, 1 - weekday(date))
  return { from, to: plusDays(from, 6) }
}
const on = (v: { startAt: string | null }) =>
  v.startAt ? localDate(Date.parse(v.startAt), session.zone) : ''
const cell = (data: Range, id: string, date: string) =>
  data.cells.find((c) => c.technicianId === id && c.date === date)!
const own = (visits: Range['visits'], id: string, date: string) =>
  visits.filter((v) => on(v) === date && (v.technicianId === id || v.crewIds.includes(id)))
const nobody = (visits: Range['visits'], date: string) =>
  visits.filter((v) => on(v) === date && !v.technicianId)
const people = (data: Range) => data.technicians.filter((t) => filters.shows(t.id))
/** A territory's capacity is the sum of its people's; whoever serves none serves all. */
function territory(data: Range, name: string, date: string) {
  const cells = data.technicians
    .filter((t) => t.territories.includes(name))
    .map((t) => cell(data, t.id, date))
  const sum = (key: 'morning' | 'afternoon' | 'capacityMorning' | 'capacityAfternoon') =>
    cells.reduce((n, c) => n + c[key], 0)
  return {
    morning: sum('morning'),
    afternoon: sum('afternoon'),
    capacityMorning: sum('capacityMorning'),
    capacityAfternoon: sum('capacityAfternoon'),
  }
}
const names = (data: Range) => [...new Set(data.technicians.flatMap((t) => t.territories))].sort()
</script>

<template>
  <RangePage
    v-slot="{ data, date, shown, open }"
    :title="(from, to) => `${session.day(from, 'long')} to ${session.day(to, 'long')}`"
    :span="span"
    step="week"
  >
    <table class="week">
      <thead>
        <tr>
          <th>Technician</th>
          <th
            v-for="d in data.days"
            :key="d.date"
            :class="{ today: d.date === session.today }"
          >
            <NuxtLink :to="{ path: '/schedule', query: { date: d.date } }">{{
              session.day(d.date)
            }}</NuxtLink><span
              v-if="d.holiday"
              class="chip soon"
              >{{ d.holiday }}</span
            >
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="t in people(data)"
          :key="t.id"
        >
          <th scope="row">
            <NuxtLink :to="{ path: '/schedule/one', query: { technician: t.id, date } }">{{
              t.name
            }}</NuxtLink><span class="quiet small">{{
              t.kind === 'employee' ? t.territories.join(', ') : t.kind
            }}</span>
          </th>
          <td
            v-for="d in data.days"
            :key="d.date"
            :class="{ away: cell(data, t.id, d.date).away, today: d.date === session.today }"
          >
            <template v-if="cell(data, t.id, d.date).works || own(shown, t.id, d.date).length">
              <p class="load num">
                <span
                  :class="
                    fullness(
                      cell(data, t.id, d.date).morning,
                      cell(data, t.id, d.date).capacityMorning,
                    )
                  "
                  title="Morning: taken of capacity"
                  >{{ cell(data, t.id, d.date).morning }}/{{
                    cell(data, t.id, d.date).capacityMorning
                  }}</span
                ><span
                  :class="
                    fullness(
                      cell(data, t.id, d.date).afternoon,
                      cell(data, t.id, d.date).capacityAfternoon,
                    )
                  "
                  title="Afternoon: taken of capacity"
                  >{{ cell(data, t.id, d.date).afternoon }}/{{
                    cell(data, t.id, d.date).capacityAfternoon
                  }}</span
                >
              </p>
              <button
                v-for="v in own(shown, t.id, d.date)"
                :key="v.id"
                class="v"
                :class="v.state"
                :title="`${v.title}, ${v.customer}, ${v.town}${v.misfit ? `\n${v.misfit}` : ''}`"
                @click="open(v.id)"
              >
                <b class="num">{{ session.time(v.startAt) }}</b> {{ v.customer
                }}<i
                  v-if="v.misfit"
                  class="soon"
                >
                  !</i
                >
              </button>
            </template>
            <p
              v-if="cell(data, t.id, d.date).away"
              class="small quiet why"
            >
              {{ cell(data, t.id, d.date).away }}
            </p>
          </td>
        </tr>
        <tr
          v-if="data.days.some((d) => nobody(shown, d.date).length)"
          class="nobody"
        >
          <th scope="row">Nobody yet</th>
          <td
            v-for="d in data.days"
            :key="d.date"
          >
            <button
              v-for="v in nobody(shown, d.date)"
              :key="v.id"
              class="v"
              @click="open(v.id)"
            >
              <b class="num">{{ session.time(v.startAt) }}</b> {{ v.customer }}
            </button>
          </td>
        </tr>
      </tbody>
      <tbody class="areas">
        <tr
          v-for="name in names(data)"
          :key="name"
        >
          <th scope="row">{{ name }}<span class="quiet small">could take in all</span></th>
          <td
            v-for="d in data.days"
            :key="d.date"
          >
            <p class="load num">
              <span
                :class="
                  fullness(
                    territory(data, name, d.date).morning,
                    territory(data, name, d.date).capacityMorning,
                  )
                "
                >{{ territory(data, name, d.date).morning }}/{{
                  territory(data, name, d.date).capacityMorning
                }}</span
              ><span
                :class="
                  fullness(
                    territory(data, name, d.date).afternoon,
                    territory(data, name, d.date).capacityAfternoon,
                  )
                "
                >{{ territory(data, name, d.date).afternoon }}/{{
                  territory(data, name, d.date).capacityAfternoon
                }}</span
              >
            </p>
          </td>
        </tr>
      </tbody>
    </table>
  </RangePage>
</template>

<style scoped>
.week {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  background: var(--sheet);
}
th,
td {
  border: 1px solid var(--rule);
  vertical-align: top;
  padding: 4px 6px;
  text-align: left;
  font-weight: 400;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 2;
  font-weight: 650;
}
th:first-child {
  width: 132px;
}
tbody th {
  font-weight: 650;
}
tbody th .small {
  display: block;
  font-weight: 400;
}
.today {
  background: var(--green-1);
}
.away {
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
}
.load {
  display: flex;
  gap: 4px;
  margin: 0 0 3px;
  font-size: 0.6875rem;
}
.load span {
  flex: 1;
  border-bottom: 2px solid var(--green-2);
}
.load .full {
  border-color: #d9a53c;
}
.load .over {
  border-color: var(--brick);
  color: var(--brick);
}
.v {
  display: block;
  width: 100%;
  border: 1px solid var(--steel);
  border-radius: 3px;
  background: var(--sheet);
  margin: 2px 0;
  padding: 2px 4px;
  min-height: 24px;
  font-size: 0.75rem;
  text-align: left;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  cursor: pointer;
  color: var(--ink);
}
.v.finished {
  background: #eef3f0;
  border-color: var(--rule-2);
  color: var(--ink-2);
}
.v.on_site,
.v.paused {
  background: var(--green);
  color: #fff;
  border-color: var(--green);
}
.v.driving {
  border-style: dashed;
}
.why {
  margin: 2px 0;
}
.areas {
  border-top: 3px double var(--rule-2);
}
</style>
