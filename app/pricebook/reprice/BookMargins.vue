<script setup lang="ts">
// The book before anything is changed: what its prices leave, kind by kind.
import { computed, shallowRef, watch } from 'vue'
import { marginsByKind, type KindMargins } from '~~/core/pricebook/marginsByKind'
import { roundToMinor } from '~~/core/money/roundToMinor'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import type { Found } from '~/lib/book'
import { useBook } from '~/lib/useBook'
import { useSession } from '~/stores/session'
import { KINDS } from './priceRules'

const session = useSession()
const { state, turn, list } = useBook()
const entries = shallowRef<Found[]>([])
watch(turn, async () => {
  entries.value = state.value ? await list('', {}) : []
})
const minor = (amount: string | null | undefined) =>
  roundToMinor(amount ?? '0', session.me!.company.currency)
const rows = computed(() =>
  marginsByKind(
    entries.value
      .filter((e) => e.cost !== null)
      .map((e) => ({
        kind: e.kind,
        priceMinor: minor(e.price),
        // Its hours cost us as well, whatever is bought for it.
        costMinor: minor(e.cost) + minor(e.labourCost),
      })),
  ),
)
const percents = new Intl.NumberFormat(session.locale, {
  style: 'percent',
  maximumFractionDigits: 1,
})
const say = (fraction: number | null) => (fraction === null ? '–' : percents.format(fraction))
const COLUMNS: readonly Column<KindMargins>[] = [
  { key: 'kind', label: 'The book as it stands', text: (r) => KINDS[r.kind] },
  { key: 'entries', label: 'Entries', figures: true, text: (r) => r.entries },
  { key: 'mean', label: 'Margin on average', figures: true, text: (r) => say(r.mean) },
  {
    key: 'lowest',
    label: 'The least',
    figures: true,
    tone: (r) => ({ late: (r.lowest ?? 0) < 0 }),
    text: (r) => say(r.lowest),
  },
  {
    key: 'loss',
    label: 'Below cost',
    figures: true,
    tone: (r) => (r.atLoss ? 'late' : 'quiet'),
    text: (r) => r.atLoss || 'none',
  },
]
</script>

<template>
  <DataTable
    v-if="rows.length"
    label="The book as it stands"
    :rows="rows"
    :row-key="(r) => r.kind"
    :columns="COLUMNS"
  />
  <p class="quiet">
    Choose above what is to change, and look at it first: nothing changes before you say so.
  </p>
</template>
