<script setup lang="ts">
// The schedule as a list: what is placed, what has a person and no time, what has neither; to read, to filter, to print.
import { plusDays } from '~~/core/time/zone'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import RangePage from '~/components/dispatch/RangePage.vue'
import { useLooks } from '~/stores/looks'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
type Range = Answer<'scheduleRange'>
const session = useSession()
const looks = useLooks()
const span = (date: string) => ({ from: date, to: plusDays(date, 6) })
const nameOf = (data: Range, id: string | null) =>
  data.technicians.find((t) => t.id === id)?.name ?? ''
const groups = (data: Range, shown: Range['visits']) =>
  [
    {
      name: 'Neither a time nor a person',
      rows: data.tray.filter(
        (v) =>
          !v.technicianId &&
          (!looks.active ||
            looks.fits({ ...v, technicianId: looks.filter.technicianIds[0] ?? null })),
      ),
    },
    {
      name: 'A person, and no time yet',
      rows: data.tray.filter((v) => v.technicianId && looks.fits(v)),
    },
    { name: 'A time, and nobody yet', rows: shown.filter((v) => !v.technicianId) },
    ...data.days.map((d) => ({
      name: session.day(d.date, true) + (d.holiday ? `, ${d.holiday}` : ''),
      rows: shown.filter((v) => v.technicianId && v.startAt && localDay(v.startAt) === d.date),
    })),
  ].filter((g) => g.rows.length)
const localDay = (iso: string) =>
  new Intl.DateTimeFormat('en-CA', { timeZone: session.zone }).format(new Date(iso))
const print = () => window.print()
</script>

<template>
  <RangePage
    v-slot="{ data, shown, open }"
    :title="(from, to) => `${session.day(from, true)} to ${session.day(to, true)}`"
    :span="span"
    step="week"
  >
    <div class="list">
      <button
        class="btn no-print print"
        @click="print"
      >
        Print the list
      </button>
      <template
        v-for="g in groups(data, shown)"
        :key="g.name"
      >
        <h2>
          {{ g.name }} <span class="quiet num">{{ g.rows.length }}</span>
        </h2>
        <table class="book">
          <colgroup>
            <col class="when" />
            <col class="who" />
            <col />
            <col />
            <col class="said" />
            <col class="long" />
            <col class="state" />
          </colgroup>
          <tbody>
            <tr
              v-for="v in g.rows"
              :key="v.id"
              tabindex="0"
              class="pick"
              @click="open(v.id)"
              @keydown.enter="open(v.id)"
            >
              <td class="num">{{ v.startAt ? session.time(v.startAt) : '–' }}</td>
              <td>
                {{ nameOf(data, v.technicianId).split(' ')[0]
                }}<span
                  v-if="v.crewIds.length"
                  class="quiet"
                >
                  + {{ v.crewIds.map((c) => nameOf(data, c).split(' ')[0]).join(', ') }}</span
                >
              </td>
              <td>
                <b>{{ v.customer }}</b><br /><span class="quiet small"
                  >{{ v.place }}, {{ v.town }}</span
                >
              </td>
              <td>
                {{ v.title }}<br /><span class="num small quiet"
                  >{{ v.number }} · {{ v.kind }}{{ v.quote ? ` · ${v.quote}` : '' }}</span
                >
              </td>
              <td class="small">
                {{
                  v.promiseFrom
                    ? `promised ${v.promiseFrom}–${v.promiseTo}`
                    : v.waiting || 'nothing promised'
                }}<br /><span
                  v-if="v.misfit"
                  class="soon"
                  >{{ v.misfit }}</span
                >
              </td>
              <td class="num right">{{ hoursMinutes(v.durationSeconds) }}</td>
              <td>
                <span class="chip">{{ v.state.replace('_', ' ') }}</span><span
                  v-if="v.locked"
                  class="chip soon"
                  >locked</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <p
        v-if="!groups(data, shown).length"
        class="empty"
      >
        {{
          looks.active
            ? 'Nothing like that in these days. “Show everything” takes the filter away.'
            : 'Nothing is planned in these days.'
        }}
      </p>
    </div>
  </RangePage>
</template>

<style scoped>
.list {
  padding: 0 14px 20px;
  position: relative;
}
.print {
  float: right;
}
h2 {
  margin: 12px 0 4px;
  min-height: 30px;
  display: flow-root;
}
h2:not(:first-of-type) {
  min-height: 0;
}
table {
  table-layout: fixed;
}
.when {
  width: 64px;
}
.who {
  width: 130px;
}
.said {
  width: 280px;
}
.long {
  width: 70px;
}
.state {
  width: 130px;
}
.pick {
  cursor: pointer;
}
</style>
