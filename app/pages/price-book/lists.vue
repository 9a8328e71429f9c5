<script setup lang="ts">
// Price lists in and out: what each column means, a look at what would change row by row and price by price, then all that is right in one
// act, with progress and undo.
import { computed, reactive, ref, watch } from 'vue'
import { BOOK_FIELDS, guessBookColumns, type BookField } from '~~/core/pricebook/bookTable'
import { leavesOutMuch } from '~~/core/pricebook/importPlan'
import type { Table } from '~~/core/formats/readCsv'
import type { Answer } from '~~/shared/api'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import { call, newId } from '~/lib/api'
import { tableOf, textOf } from '~/lib/readTable'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'
import FileColumns from '~/components/base/FileColumns.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: rules } = useAnswer('pricing', undefined, SHOWS.book)
const { data: earlier, refresh } = useAnswer('priceImports', undefined, SHOWS.book)
const { busy, problem, act } = useAct()
const said = ref('')
const table = ref<Table | null>(null)
const fileName = ref('')
const supplier = ref('')
const columns = ref<(BookField | null)[]>([])
const remembered = ref(false)
const options = reactive({
  category: '',
  taxClass: 'goods',
  fixed: 'keep' as 'keep' | 'by_rule',
  vanished: 'keep' as 'keep' | 'retire',
})
const seen = ref<Answer<'lookAtPrices'> | null>(null)
const shown = ref<InstanceType<typeof PricePreview>>()
const done = ref<Answer<'takePrices'> | null>(null)
const progress = reactive({ what: '', done: 0, of: 0 })
const [MOST_BYTES, MOST_ROWS, PIECE] = [30_000_000, 50_000, 2000]
let id = newId()
async function read([file]: File[]) {
  said.value = ''
  if (!file) return
  table.value = seen.value = done.value = null
  problem.value = null
  try {
    table.value = tableOf(await textOf(file, MOST_BYTES), MOST_ROWS)
  } catch (error) {
    return void (said.value = `${file.name}: ${(error as Error).message}`)
  }
  fileName.value = file.name
  columns.value = guessBookColumns(table.value.head)
  await recall()
}
/** The same source as last time: its columns mean what they meant then. */
async function recall() {
  if (!table.value) return
  const got = await call('columnMeaning', {
    body: { supplier: supplier.value, head: table.value.head.map((h) => h.slice(0, 200)) },
  }).catch(() => null)
  remembered.value = Boolean(got?.known)
  if (got?.known)
    columns.value = got.columns.map((c) =>
      (BOOK_FIELDS as readonly string[]).includes(c ?? '') ? (c as BookField) : null,
    )
}
watch(supplier, () => void recall())
// What was looked at is what is done.
watch(
  [columns, supplier, options],
  () => {
    seen.value = null
  },
  { deep: true },
)
const asksCode = computed(
  () => !columns.value.includes('code') && !columns.value.includes('part_number'),
)
const asksSupplier = computed(
  () =>
    !columns.value.includes('code') &&
    !columns.value.includes('supplier') &&
    !supplier.value.trim(),
)
async function watched<T>(work: Promise<T>): Promise<T> {
  let on = true
  const ask = async () => {
    while (on) {
      await new Promise((go) => setTimeout(go, 400))
      const got = await call('importProgress', { params: { id } }).catch(() => null)
      if (on && got?.of) Object.assign(progress, got)
    }
  }
  void ask()
  try {
    return await work
  } finally {
    on = false
    Object.assign(progress, { what: '', done: 0, of: 0 })
  }
}
const look = () =>
  act(async () => {
    const { head, rows } = table.value!
    id = newId()
    for (let i = 0; i < rows.length; i += PIECE) {
      Object.assign(progress, { what: 'sending', done: i, of: rows.length })
      await call('stagePrices', {
        params: { id },
        body: {
          supplier: supplier.value.trim(),
          head: head.map((h) => h.slice(0, 200)),
          fileName: fileName.value,
          columns: columns.value,
          rows: rows
            .slice(i, i + PIECE)
            .map((cells, j) => ({ row: i + j + 2, cells: cells.map((c) => c.slice(0, 4000)) })),
        },
      })
    }
    seen.value = await watched(call('lookAtPrices', { params: { id }, body: { ...options } }))
  })
const take = () =>
  act(async () => {
    done.value = await watched(
      call('takePrices', { params: { id }, body: { ...options, stamp: seen.value!.stamp } }),
    )
    seen.value = table.value = null
    await refresh()
  })
const undo = (listId: string) =>
  act(async () => {
    const { left } = await call('undoPriceImport', { params: { id: listId } })
    said.value = left ? `Taken back, but for ${left} that somebody changed since.` : 'Taken back.'
    done.value = null
    await refresh()
  })
const label = (f: string) => f.replaceAll('_', ' ')
const sums = computed(() =>
  seen.value
    ? ([
        [seen.value.counts.new, 'new'],
        [seen.value.counts.changed, 'changed'],
        [seen.value.counts.same, 'as they are'],
        [seen.value.counts.wrong, 'left out, something is wrong'],
        [seen.value.counts.vanished, 'no longer on the list'],
      ] as [number, string][])
    : [],
)
// A short list that is taken for the whole of it would empty the book.
const meant = ref(false)
watch(seen, () => {
  meant.value = false
})
const asksMuch = computed(
  () =>
    seen.value !== null &&
    options.vanished === 'retire' &&
    leavesOutMuch({
      vanished: seen.value.counts.vanished,
      named: seen.value.counts.changed + seen.value.counts.same,
    }),
)
const retires = computed(() =>
  options.vanished === 'retire' ? (seen.value?.counts.vanished ?? 0) : 0,
)
const willTake = computed(() =>
  seen.value ? seen.value.counts.new + seen.value.counts.changed + retires.value : 0,
)
</script>

<template>
  <section class="page">
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">Price lists</h1>
      <a
        class="btn"
        href="/api/v1/export/price-book.csv"
        >Our book as a file (CSV)</a
      >
    </div>
    <p class="quiet">
      A file with comma-separated values: our own list, or a supplier’s, which is matched by its
      part numbers. Nothing is taken in before you have seen what would happen.
    </p>
    <div class="row top">
      <Field label="Whose list"
        ><TextInput
          v-model="supplier"
          list="list-suppliers"
          placeholder="our own"
          style="width: 220px" /></Field
      ><datalist id="list-suppliers">
        <option
          v-for="s in rules?.suppliers ?? []"
          :key="s"
          :value="s"
        /></datalist
      ><FileInput
        primary
        class="pick"
        label="Choose a file"
        accept=".csv,.txt,.tsv,text/csv"
        :disabled="busy"
        @choose="read"
      />
    </div>
    <p
      v-if="said"
      class="note warn"
      role="status"
    >
      {{ said }}
    </p>
    <Notice :of="problem" />
    <div
      v-if="done"
      class="note row"
      role="status"
    >
      <span class="grow"
        ><b>{{ done.counts.new }} new and {{ done.counts.changed }} changed</b>,
        {{ done.counts.wrong }} rows left out.</span
      ><ActButton
        :disabled="busy"
        @click="undo(done.id)"
      >
        Undo the list
      </ActButton>
    </div>
    <p
      v-if="busy && progress.of"
      role="status"
      class="row"
    >
      <progress
        :value="progress.done"
        :max="progress.of"
        aria-label="Progress"
      />
      {{ progress.what }} {{ progress.done }} of {{ progress.of }}
    </p>
    <template v-if="table">
      <h2>
        {{ fileName }}: {{ table.rows.length }} rows
        <span
          v-if="remembered"
          class="chip good"
          >columns as the last time</span
        >
      </h2>
      <FileColumns
        v-model="columns"
        :head="table.head"
        :rows="table.rows"
        :fields="BOOK_FIELDS"
        :label="label"
      />
      <p
        v-if="asksCode"
        class="wrong"
      >
        Say which column holds the code or the part number.
      </p>
      <p
        v-else-if="asksSupplier"
        class="wrong"
      >
        Say whose list it is: part numbers are a supplier’s own.
      </p>
      <div class="row top">
        <Field label="New entries stand in"
          ><TextInput
            v-model="options.category"
            list="list-categories"
            :placeholder="supplier || 'Taken in'" /></Field
        ><datalist id="list-categories">
          <option
            v-for="c in rules?.categories ?? []"
            :key="c"
            :value="c"
          /></datalist
        ><Field label="and are taxed as"
          ><Choice
            v-model="options.taxClass"
            :options="(rules?.taxClasses ?? []).map((t) => ({ value: t.id, label: t.name }))"
        /></Field>
        <Field label="A fixed price with a new cost"
          ><Choice
            v-model="options.fixed"
            :options="[
              { value: 'keep', label: 'stays as it is' },
              { value: 'by_rule', label: 'follows the rule from now on' },
            ]" /></Field
        ><Field label="What is no longer on the list"
          ><Choice
            v-model="options.vanished"
            :options="[
              { value: 'keep', label: 'stays in the book' },
              { value: 'retire', label: 'is retired' },
            ]" /></Field
        ><span class="grow" /><ActButton
          :primary="!seen"
          :disabled="busy || asksCode || asksSupplier"
          @click="look"
        >
          Look at it first
        </ActButton>
      </div>
      <template v-if="seen">
        <p
          class="row sums"
          role="status"
        >
          <span
            v-for="[n, name] in sums"
            :key="name"
            ><b class="num">{{ n }}</b> {{ name }}</span
          ><span class="grow" /><ActButton
            primary
            :disabled="busy || !willTake || (asksMuch && !meant) || shown?.answered === false"
            @click="take"
          >
            Take in {{ willTake - retires }} {{ willTake - retires === 1 ? 'row' : 'rows'
            }}<template v-if="retires"> and retire {{ retires }}</template>
          </ActButton>
        </p>
        <p
          v-if="shown?.answered === false"
          class="small late"
        >
          Something is asked below, beside the prices: answer it before the list is taken in.
        </p>
        <Check
          v-if="asksMuch"
          v-model="meant"
          class="note warn"
        >
          This list leaves out {{ seen.counts.vanished }} entries and names
          {{ seen.counts.changed + seen.counts.same }}. All that it leaves out would be retired.
          Yes, it is meant.</Check
        >
        <details
          v-if="seen.wrong.length"
          open
        >
          <summary>
            <b>{{ seen.counts.wrong }}</b> left out
          </summary>
          <DataTable
            :rows="seen.wrong"
            :row-key="(r) => r.row"
            :columns="[
              { key: 'row', label: 'Row', figures: true, text: (r) => r.row },
              { key: 'code', label: 'Code', look: 'num', text: (r) => r.code },
              { key: 'name', label: 'Name', text: (r) => r.name },
              { key: 'whatIsWrong', label: 'What is wrong', look: 'late', text: (r) => r.what },
            ]"
          >
          </DataTable>
        </details>
        <details v-if="seen.new.length">
          <summary>
            <b>{{ seen.counts.new }}</b> new
          </summary>
          <DataTable
            :rows="seen.new"
            :row-key="(r) => r.row"
            :columns="[
              { key: 'c1', figures: true, text: (r) => r.row },
              { key: 'c2', look: 'num', text: (r) => r.code },
              { key: 'c3', text: (r) => r.name },
            ]"
          >
          </DataTable>
        </details>
        <details v-if="seen.changed.length">
          <summary>
            <b>{{ seen.counts.changed }}</b> changed
          </summary>
          <DataTable
            :rows="seen.changed"
            :row-key="(r) => r.row"
            :columns="[
              { key: 'c1', figures: true, text: (r) => r.row },
              { key: 'c2', look: 'num', text: (r) => r.code },
              { key: 'c3', text: (r) => r.name },
              { key: 'c4', look: 'quiet', text: (r) => r.what },
            ]"
          >
          </DataTable>
        </details>
        <details v-if="seen.vanished.length">
          <summary>
            <b>{{ seen.counts.vanished }}</b> no longer on the list
          </summary>
          <DataTable
            :rows="seen.vanished"
            :row-key="(v) => v.id"
            :columns="[
              { key: 'c1', look: 'num', text: (v) => v.code },
              { key: 'c2', text: (v) => v.name },
            ]"
          >
          </DataTable>
        </details>
        <PricePreview
          v-if="seen.prices.changed + seen.prices.follow"
          ref="shown"
          :preview="seen.prices"
          :busy="busy"
          @propose="
            () => {
              options.fixed = 'by_rule'
              look()
            }
          "
        />
      </template>
    </template>
    <template v-if="earlier?.items.length"
      ><h2>Lists so far</h2>
      <DataTable
        :rows="earlier.items"
        :row-key="(i) => i.id"
        :columns="[
          { key: 'c1' },
          { key: 'c2', figures: true },
          { key: 'c3', figures: true },
          { key: 'c4', figures: true },
          { key: 'c5', look: 'quiet' },
          { key: 'c6', right: true },
        ]"
        ><template #c1="{ row: i }"
          >{{ i.fileName }} <span class="quiet">{{ i.supplier }}</span></template
        >
        <template #c2="{ row: i }">{{ i.counts.new }} new</template>
        <template #c3="{ row: i }">{{ i.counts.changed }} changed</template>
        <template #c4="{ row: i }">{{ i.counts.wrong }} left out</template>
        <template #c5="{ row: i }">{{ session.dayTime(i.madeAt) }} · {{ i.madeBy }}</template>
        <template #c6="{ row: i }"
          ><span
            v-if="i.state === 'undone'"
            class="quiet"
            >taken back</span
          ><ActButton
            v-else
            :disabled="busy"
            :aria-label="`Undo ${i.fileName}`"
            @click="undo(i.id)"
          >
            Undo
          </ActButton></template
        ></DataTable
      ></template
    >
  </section>
</template>

<style scoped>
.top {
  align-items: flex-end;
  gap: 12px;
  flex-wrap: wrap;
}
.wide {
  max-height: 300px;
  overflow: auto;
}
.clip {
  max-width: 220px;
}
progress {
  width: 260px;
}
.sums {
  gap: 18px;
}
summary {
  cursor: pointer;
  padding: 4px 0;
}
details table {
  max-width: 1000px;
}
</style>
