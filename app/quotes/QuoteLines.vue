<script setup lang="ts">
// What is offered, line by line: changed where it stands while it is a draft, with the taxes and the total.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import InPlace from '~/base/InPlace.vue'
import { useSession } from '~/stores/session'
import type { LineFigures, Quote, QuoteLine } from './useQuote'

const props = defineProps<{
  quote: Quote
  draft: boolean
  busy: boolean
  field?: boolean
  /** keeps figures of a line; says whether that was done */
  set: (line: QuoteLine, values: Partial<LineFigures>) => Promise<unknown>
}>()
const emit = defineEmits<{ takeOut: [line: QuoteLine] }>()
const session = useSession()
type Row = { id: string; name: string; net: QuoteLine['net']; line?: QuoteLine }
const rows = computed<Row[]>(() => [
  ...props.quote.lines.map((line) => ({ id: line.id, name: line.name, net: line.net, line })),
  ...props.quote.price.taxes.map((tax) => ({ id: tax.name, name: tax.name, net: tax.tax })),
])
const columns = computed<Column<Row>[]>(() => [
  { key: 'what', label: 'Work and material' },
  { key: 'quantity', label: 'Quantity', figures: true },
  { key: 'each', label: 'Each', figures: true },
  { key: 'net', label: 'Net', figures: true, text: (row) => session.money(row.net, false) },
  ...(props.draft ? [{ key: 'act', right: true }] : []),
])
/** What stands beneath a line's name: its kind, what was taken off, its cost, where its price is from. */
function beneath(line: QuoteLine): string {
  const less = Number(line.discount.amount) ? `less ${session.money(line.discount, false)}` : ''
  const cost = line.unitCost ? `cost ${line.unitCost}` : ''
  const kind = line.kind === 'task' ? 'flat rate' : line.kind
  return [kind, less, cost, line.priceFrom].filter(Boolean).join(' · ')
}
</script>

<template>
  <div :class="{ field }">
    <DataTable
      label="What is offered"
      :rows="rows"
      :row-key="(row) => row.id"
      :tone="(row) => ({ quiet: !row.line })"
      :columns="columns"
      :sums="{ what: 'Total', net: session.money(quote.price.total) }"
    >
      <template #what="{ row: { line, name } }">
        {{ name
        }}<template v-if="line"
          ><br /><span class="quiet small">{{ beneath(line) }}</span></template
        >
      </template>
      <template #quantity="{ row: { line } }">
        <InPlace
          v-if="line && draft"
          bare
          kind="figures"
          :label="`Quantity of ${line.name}`"
          :value="line.quantity"
          :keep="(quantity) => set(line, { quantity })"
        />
        <template v-else>{{ line?.quantity }}</template>
      </template>
      <template #each="{ row: { line } }">
        <InPlace
          v-if="line && draft"
          bare
          kind="figures"
          :label="`Price of ${line.name}, here only`"
          :value="line.unitPrice"
          :keep="(unitPrice) => set(line, { unitPrice })"
        />
        <template v-else>{{ line?.unitPrice }}</template>
      </template>
      <template #act="{ row: { line } }">
        <ActButton
          v-if="line"
          quiet
          class="small"
          :disabled="busy"
          :aria-label="`Take out ${line.name}`"
          @click="emit('takeOut', line)"
        >
          Take out
        </ActButton>
      </template>
    </DataTable>
    <p
      v-if="!quote.lines.length"
      class="empty"
    >
      Nothing is offered yet. Add a line from the price book.
    </p>
  </div>
</template>

<style scoped>
:deep(.figures) {
  width: 84px;
}
/* On a phone a line is a block: its name across, its figures beneath. */
.field :deep(:is(table, tbody, tfoot)) {
  display: block;
  width: 100% !important;
}
.field :deep(:is(thead, colgroup)) {
  display: none;
}
.field :deep(:is(tbody, tfoot) tr) {
  display: grid;
  grid-template-columns: 62px 86px 1fr auto;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}
.field :deep(:is(tbody, tfoot) td.el-table__cell) {
  border: 0;
  padding: 5px 6px;
}
.field :deep(:is(tbody, tfoot) td:first-child) {
  grid-column: 1 / -1;
}
.field :deep(.figures) {
  width: 100%;
}
</style>
