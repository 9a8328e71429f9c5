<script setup lang="ts">
// Everything in and out: each file that can be taken along or in, in which format, when it last was.
import GoesOut from '~/archive/GoesOut.vue'
import { IN, OUT } from '~/archive/words'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useAnswer('inAndOut', undefined, {
  subjects: ['import', 'settings'],
})
type Run = Pick<Answer<'inAndOut'>['exports'][number], 'at' | 'by'>
const last = ({ at, by }: Run) =>
  at ? [session.dayTime(at), by].filter(Boolean).join(', ') : 'not yet'
</script>

<template>
  <section
    v-if="data"
    class="page stack"
  >
    <h1>Everything in and out</h1>
    <h2>Take along</h2>
    <DataTable
      label="Take along"
      :rows="data.exports"
      :row-key="(e) => e.what"
      :columns="[
        { key: 'name', label: 'What' },
        { key: 'format', label: 'Format', look: 'quiet', text: (e) => OUT[e.what].format },
        { key: 'last', label: 'Last', look: 'quiet', text: last },
      ]"
    >
      <template #name="{ row }">
        <a
          :href="OUT[row.what].at"
          :download="''"
          >{{ OUT[row.what].name }}</a
        >
      </template>
    </DataTable>
    <p
      v-if="session.may('archive.take')"
      class="quiet small"
    >
      Everything, in one file, holds all but passwords. Another Open Ledger that is empty takes it
      in at <b class="num">/begin</b>, and has the same customers, papers and balances.
    </p>
    <h2>Take in</h2>
    <DataTable
      label="Take in"
      :rows="data.imports"
      :row-key="(i) => i.what"
      :columns="[
        { key: 'name', label: 'What' },
        { key: 'format', label: 'Format', look: 'quiet', text: (i) => IN[i.what].format },
        { key: 'file', label: 'File', look: 'quiet clip', text: (i) => i.file },
        { key: 'last', label: 'Last', look: 'quiet', text: last },
      ]"
    >
      <template #name="{ row }">
        <NuxtLink :to="IN[row.what].at">{{ IN[row.what].name }}</NuxtLink>
      </template>
    </DataTable>
    <GoesOut
      v-if="data.maySchedule"
      :of="data"
      @kept="data = $event"
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
