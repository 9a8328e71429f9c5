<script setup lang="ts">
// What sold in twelve months, and what was usually asked for it.
import type { Answer } from '~~/shared/api'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import TableActs from '~/base/TableActs.vue'
import { useSession } from '~/stores/session'

type Sold = Answer<'bookUsage'>['sold'][number]
defineProps<{ sold: Sold[] }>()
const session = useSession()
const differs = (a: string, b: string) => Number(a) !== Number(b)
const COLUMNS: readonly Column<Sold>[] = [
  { key: 'code', label: 'Code', look: 'num', file: (s) => s.code },
  { key: 'name', label: 'Name', text: (s) => s.name },
  { key: 'lines', label: 'Lines', figures: true, text: (s) => s.lines },
  { key: 'sold', label: 'Sold', figures: true, text: (s) => s.quantity },
  { key: 'net', label: 'Net', figures: true, file: (s) => s.net.amount },
  {
    key: 'book',
    label: 'Book',
    figures: true,
    look: 'quiet',
    text: (s) => session.figure(s.book),
    file: (s) => s.book,
  },
  {
    key: 'usuallyAt',
    label: 'Usually at',
    figures: true,
    tone: (s) => ({ soon: differs(s.book, s.usual) }),
    text: (s) => session.figure(s.usual),
    file: (s) => s.usual,
  },
  {
    key: 'last',
    label: 'Last',
    right: true,
    look: 'nowrap',
    text: (s) => (s.last ? session.day(s.last) : ''),
  },
]
</script>

<template>
  <div v-if="sold.length">
    <DataTable
      :rows="sold"
      :row-key="(s) => s.id"
      picks
      :columns="COLUMNS"
      @pick="(s) => navigateTo(`/price-book/${s.id}`)"
      ><template #code="{ row: s }"
        ><NuxtLink :to="`/price-book/${s.id}`">{{ s.code }}</NuxtLink></template
      >

      <template #net="{ row: s }"
        ><b>{{ session.money(s.net, false) }}</b></template
      >
    </DataTable>
    <TableActs
      name="Sold in twelve months"
      :columns="COLUMNS"
      :rows="() => sold"
    />
  </div>
  <p
    v-else
    class="empty sheet"
  >
    Nothing of the book was sold in twelve months.
  </p>
</template>
