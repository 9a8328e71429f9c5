<script setup lang="ts">
// Open invoices and credits from a file, with the sum against what the bookkeeper has.
import { OPEN_ITEM_FIELDS, type OpenItemField } from '~~/core/broughtForward/openItem'
import { counted } from '~~/core/text/counted'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DataTable from '~/base/DataTable.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import FileInput from '~/base/FileInput.vue'
import EarlierImports from '~/components/base/EarlierImports.vue'
import FileColumns from '~/components/base/FileColumns.vue'
import ImportNews from '~/components/base/ImportNews.vue'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import type { ItemRow } from './tried'
import { useOpenItems } from './useOpenItems'

defineProps<{ imports: Answer<'broughtForward'>['imports'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const items = useOpenItems(async () => emit('changed'))
const { table, columns, fileName, said, progress, busy, problem, tried, taken, missing } = items
const { on, makes, theirs, money, differenceMinor } = items
const FIELDS: Readonly<Record<OpenItemField, string>> = {
  ...{ number: 'number', customer: 'customer', phone: 'telephone', email: 'mail address' },
  ...{ issued: 'day of issue', due: 'due', total: 'total', open: 'still open' },
}
const label = (field: OpenItemField) => FIELDS[field]
const STATES = {
  settled: 'Nothing is open of it.',
  ...{ double: '', wrong: '', new: '', credit: '' },
} as const
const isField = (name: string): name is OpenItemField => name in FIELDS
const sayRow = (row: ItemRow): string =>
  [
    row.of && `is taken for ${row.of}, whose telephone or mail it is.`,
    STATES[row.state],
    ...row.problems.map(
      ({ field, message }) => `${isField(field) ? label(field) : field}: ${message}`,
    ),
  ]
    .filter(Boolean)
    .join(' ')
const toneOf = ({ state }: ItemRow) => (state === 'wrong' || state === 'double' ? 'late' : 'soon')
</script>

<template>
  <p class="quiet">
    One row for each invoice that is not paid: number, customer, day, what is still open. A credit
    is a row whose open sum is below nothing. Days and sums are read as the firm writes them.
  </p>
  <div class="row">
    <FileInput
      label="Choose a file (CSV)"
      accept=".csv,.txt,.tsv,text/csv"
      :disabled="busy"
      @choose="items.choose"
    />
    <Field
      label="They count here from"
      inline
      ><DateInput
        v-model="on"
        :max="session.today"
    /></Field>
  </div>
  <ImportNews
    v-bind="{ said, problem, busy }"
    :progress="table ? progress : null"
    :done="Boolean(taken)"
    @undo="items.undo(taken!.id)"
    ><b
      >{{ counted(taken?.count ?? 0, 'invoice or credit', 'invoices and credits') }} taken over.</b
    >
    They are under <NuxtLink to="/unpaid">Unpaid</NuxtLink>.</ImportNews
  >
  <template v-if="table">
    <h3>{{ fileName }}: {{ table.rows.length }} rows</h3>
    <FileColumns
      v-model="columns"
      :head="table.head"
      :rows="table.rows"
      :fields="OPEN_ITEM_FIELDS"
      :label="label"
    />
    <p
      v-if="missing.length"
      class="wrong"
    >
      Say which column holds: {{ missing.map(label).join(', ') }}.
    </p>
    <div class="row">
      <Check v-model="makes">Make customers who are not known here</Check><span class="grow" />
      <ActButton
        :disabled="busy || !!missing.length || !on"
        @click="items.go(false)"
        >Try it dry</ActButton
      >
      <ActButton
        primary
        :disabled="busy || !tried || !(tried.invoices + tried.credits)"
        @click="items.go(true)"
        >Take over {{ tried ? tried.invoices + tried.credits : '' }}</ActButton
      >
    </div>
    <section
      v-if="tried"
      aria-label="What would be taken over"
    >
      <p role="status">
        Nothing has been changed yet. <b>{{ counted(tried.invoices, 'invoice') }}</b> and
        <b>{{ counted(tried.credits, 'credit') }}</b> would be taken over;
        {{ counted(tried.newCustomers.size, 'customer') }} would be new here, and
        {{ counted(tried.leftOut, 'row') }} left out.
      </p>
      <dl class="sums">
        <dt>Open invoices</dt>
        <dd>{{ money(tried.openMinor) }}</dd>
        <dt>Credits</dt>
        <dd>{{ money(-tried.creditMinor) }}</dd>
        <dt>Together</dt>
        <dd>
          <b>{{ money(tried.openMinor - tried.creditMinor) }}</b>
        </dd>
      </dl>
      <div class="row">
        <Field
          label="Your books before say is open"
          inline
          ><FigureInput v-model="theirs"
        /></Field>
        <b
          v-if="differenceMinor === 0"
          class="good"
          >The two are equal.</b
        >
        <b
          v-else-if="differenceMinor !== null"
          class="late"
          >{{ money(Math.abs(differenceMinor)) }}
          {{ differenceMinor > 0 ? 'is missing in the file' : 'more is in the file' }}</b
        >
      </div>
      <DataTable
        v-if="tried.rows.length"
        label="Rows to look at"
        :rows="tried.rows"
        :row-key="(r) => r.row"
        :columns="[
          { key: 'row', label: 'Row', figures: true, text: (r) => r.row },
          { key: 'number', label: 'Number', text: (r) => r.number || '–' },
          { key: 'customer', label: 'Customer', text: (r) => r.customer || '–' },
          { key: 'what', label: 'What', tone: toneOf, text: sayRow },
        ]"
      />
    </section>
  </template>
  <EarlierImports
    :items="imports"
    :busy="busy"
    @undo="items.undo"
  />
</template>

<style scoped>
.sums {
  display: grid;
  grid-template-columns: max-content max-content;
  gap: 2px 24px;
  margin: 8px 0;
}
.sums dd {
  margin: 0;
  text-align: right;
  font-family: var(--mono);
}
</style>
