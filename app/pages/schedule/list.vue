<script setup lang="ts">
// The schedule as a list: what is placed, what has a person and no time, what has neither; to read, to filter, to print.
import { localDate, plusDays } from '~~/core/time/zone'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import RangePage from '~/components/dispatch/RangePage.vue'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'

definePageMeta({ layout: 'office' })
type Range = Answer<'scheduleRange'>
const session = useSession()
const filters = useScheduleFilter()
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
          (!filters.active ||
            filters.fits({ ...v, technicianId: filters.filter.technicianIds[0] ?? null })),
      ),
    },
    {
      name: 'A person, and no time yet',
      rows: data.tray.filter((v) => v.technicianId && filters.fits(v)),
    },
    { name: 'A time, and nobody yet', rows: shown.filter((v) => !v.technicianId) },
    ...data.days.map((d) => ({
      name: session.day(d.date, 'long') + (d.holiday ? `, ${d.holiday}` : ''),
      rows: shown.filter((v) => v.technicianId && v.startAt && localDay(v.startAt) === d.date),
    })),
  ].filter((g) => g.rows.length)
const localDay = (iso: string) => localDate(Date.parse(iso), session.zone)
const print = () => window.print()
</script>

<template>
  <RangePage
    v-slot="{ data, shown, open }"
    :title="(from, to) => `${session.day(from, 'long')} to ${session.day(to, 'long')}`"
    :span="span"
    step="week"
  >
    <div class="list">
      <ActButton
        class="no-print print"
        @click="print"
      >
        Print the list
      </ActButton>
      <template
        v-for="g in groups(data, shown)"
        :key="g.name"
      >
        <h2>
          {{ g.name }} <span class="quiet num">{{ g.rows.length }}</span>
        </h2>
        <DataTable
          :rows="g.rows"
          :row-key="(v) => v.id"
          picks
          :columns="[
            {
              key: 'when',
              look: 'num',
              width: 64,
              text: (v) => (v.startAt ? session.time(v.startAt) : '–'),
            },
            { key: 'who', width: 110 },
            { key: 'where', width: 320 },
            { key: 'what' },
            { key: 'said', look: 'small', width: 180 },
            { key: 'long', figures: true, width: 70, text: (v) => hoursMinutes(v.durationSeconds) },
            { key: 'state', width: 110 },
          ]"
          @pick="(v) => open(v.id)"
        >
          <template #who="{ row: v }"
            >{{ nameOf(data, v.technicianId).split(' ')[0]
            }}<span
              v-if="v.crewIds.length"
              class="quiet"
            >
              + {{ v.crewIds.map((c) => nameOf(data, c).split(' ')[0]).join(', ') }}</span
            ></template
          >
          <template #where="{ row: v }"
            ><b>{{ v.customer }}</b
            ><br /><span class="quiet small">{{ v.place }}, {{ v.town }}</span></template
          >
          <template #what="{ row: v }"
            >{{ v.title }}<br /><span class="num small quiet"
              >{{ v.number }} · {{ session.workKind(v.kind)
              }}{{ v.quote ? ` · ${v.quote}` : '' }}</span
            ></template
          >
          <template #said="{ row: v }"
            >{{
              v.promiseFrom
                ? `promised ${v.promiseFrom}–${v.promiseTo}`
                : v.waiting || 'nothing promised'
            }}<br /><span
              v-if="v.misfit"
              class="soon"
              >{{ v.misfit }}</span
            ></template
          >

          <template #state="{ row: v }"
            ><span class="chip">{{ v.state.replace('_', ' ') }}</span
            ><span
              v-if="v.locked"
              class="chip soon"
              >locked</span
            ></template
          >
        </DataTable>
      </template>
      <p
        v-if="!groups(data, shown).length"
        class="empty"
      >
        {{
          filters.active
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
