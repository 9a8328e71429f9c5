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
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: rules } = useLoad(() => call('pricing'), 0, SHOWS.book)
const { data: earlier, refresh } = useLoad(() => call('priceImports'), 0, SHOWS.book)
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
async function read(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
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
        } as never,
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
      <label class="field"
        ><span>Whose list</span
        ><input
          v-model.lazy="supplier"
          class="plain"
          list="list-suppliers"
          placeholder="our own"
          style="width: 220px" /></label
      ><datalist id="list-suppliers">
        <option
          v-for="s in rules?.suppliers ?? []"
          :key="s"
          :value="s"
        /></datalist
      ><label class="btn act pick"
        ><input
          type="file"
          class="visually-hidden"
          accept=".csv,.txt,.tsv,text/csv"
          :disabled="busy"
          @change="read"
        />Choose a file</label
      >
    </div>
    <p
      v-if="said"
      class="note warn"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <div
      v-if="done"
      class="note row"
      role="status"
    >
      <span class="grow"
        ><b>{{ done.counts.new }} new and {{ done.counts.changed }} changed</b>,
        {{ done.counts.wrong }} rows left out.</span
      ><button
        class="btn"
        :disabled="busy"
        @click="undo(done.id)"
      >
        Undo the list
      </button>
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
      <div class="wide">
        <table class="book">
          <thead>
            <tr>
              <th>Column</th>
              <th>Means</th>
              <th>First row</th>
              <th>Second row</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(h, i) in table.head"
              :key="i"
            >
              <td>{{ h }}</td>
              <td>
                <select
                  v-model="columns[i]"
                  class="plain"
                  :aria-label="`Meaning of ${h}`"
                >
                  <option :value="null">leave out</option>
                  <option
                    v-for="f in BOOK_FIELDS"
                    :key="f"
                    :value="f"
                    :disabled="columns.includes(f) && columns[i] !== f"
                  >
                    {{ label(f) }}
                  </option>
                </select>
              </td>
              <td class="clip">{{ table.rows[0]?.[i] }}</td>
              <td class="clip">{{ table.rows[1]?.[i] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
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
        <label class="field"
          ><span>New entries stand in</span
          ><input
            v-model="options.category"
            class="plain"
            list="list-categories"
            :placeholder="supplier || 'Taken in'" /></label
        ><datalist id="list-categories">
          <option
            v-for="c in rules?.categories ?? []"
            :key="c"
            :value="c"
          /></datalist
        ><label class="field"
          ><span>and are taxed as</span
          ><select
            v-model="options.taxClass"
            class="plain"
          >
            <option
              v-for="t in rules?.taxClasses ?? []"
              :key="t.id"
              :value="t.id"
            >
              {{ t.name }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>A fixed price with a new cost</span
          ><select
            v-model="options.fixed"
            class="plain"
          >
            <option value="keep">stays as it is</option>
            <option value="by_rule">follows the rule from now on</option>
          </select></label
        ><label class="field"
          ><span>What is no longer on the list</span
          ><select
            v-model="options.vanished"
            class="plain"
          >
            <option value="keep">stays in the book</option>
            <option value="retire">is retired</option>
          </select></label
        ><span class="grow" /><button
          class="btn"
          :class="{ act: !seen }"
          :disabled="busy || asksCode || asksSupplier"
          @click="look"
        >
          Look at it first
        </button>
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
          ><span class="grow" /><button
            class="btn act"
            :disabled="busy || !willTake || (asksMuch && !meant) || shown?.answered === false"
            @click="take"
          >
            Take in {{ willTake - retires }} {{ willTake - retires === 1 ? 'row' : 'rows'
            }}<template v-if="retires"> and retire {{ retires }}</template>
          </button>
        </p>
        <p
          v-if="shown?.answered === false"
          class="small late"
        >
          Something is asked below, beside the prices: answer it before the list is taken in.
        </p>
        <label
          v-if="asksMuch"
          class="row note warn"
          ><input
            v-model="meant"
            type="checkbox"
          />
          This list leaves out {{ seen.counts.vanished }} entries and names
          {{ seen.counts.changed + seen.counts.same }}. All that it leaves out would be retired.
          Yes, it is meant.</label
        >
        <details
          v-if="seen.wrong.length"
          open
        >
          <summary>
            <b>{{ seen.counts.wrong }}</b> left out
          </summary>
          <table class="book">
            <thead>
              <tr>
                <th class="right">Row</th>
                <th>Code</th>
                <th>Name</th>
                <th>What is wrong</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="r in seen.wrong"
                :key="r.row"
              >
                <td class="right num">{{ r.row }}</td>
                <td class="num">{{ r.code }}</td>
                <td>{{ r.name }}</td>
                <td class="late">{{ r.what }}</td>
              </tr>
            </tbody>
          </table>
        </details>
        <details v-if="seen.new.length">
          <summary>
            <b>{{ seen.counts.new }}</b> new
          </summary>
          <table class="book">
            <tbody>
              <tr
                v-for="r in seen.new"
                :key="r.row"
              >
                <td class="right num">{{ r.row }}</td>
                <td class="num">{{ r.code }}</td>
                <td>{{ r.name }}</td>
              </tr>
            </tbody>
          </table>
        </details>
        <details v-if="seen.changed.length">
          <summary>
            <b>{{ seen.counts.changed }}</b> changed
          </summary>
          <table class="book">
            <tbody>
              <tr
                v-for="r in seen.changed"
                :key="r.row"
              >
                <td class="right num">{{ r.row }}</td>
                <td class="num">{{ r.code }}</td>
                <td>{{ r.name }}</td>
                <td class="quiet">{{ r.what }}</td>
              </tr>
            </tbody>
          </table>
        </details>
        <details v-if="seen.vanished.length">
          <summary>
            <b>{{ seen.counts.vanished }}</b> no longer on the list
          </summary>
          <table class="book">
            <tbody>
              <tr
                v-for="v in seen.vanished"
                :key="v.id"
              >
                <td class="num">{{ v.code }}</td>
                <td>{{ v.name }}</td>
              </tr>
            </tbody>
          </table>
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
      <table class="book">
        <tbody>
          <tr
            v-for="i in earlier.items"
            :key="i.id"
          >
            <td>
              {{ i.fileName }} <span class="quiet">{{ i.supplier }}</span>
            </td>
            <td class="right num">{{ i.counts.new }} new</td>
            <td class="right num">{{ i.counts.changed }} changed</td>
            <td class="right num">{{ i.counts.wrong }} left out</td>
            <td class="quiet">{{ session.dayTime(i.madeAt) }} · {{ i.madeBy }}</td>
            <td class="right">
              <span
                v-if="i.state === 'undone'"
                class="quiet"
                >taken back</span
              ><button
                v-else
                class="btn"
                :disabled="busy"
                :aria-label="`Undo ${i.fileName}`"
                @click="undo(i.id)"
              >
                Undo
              </button>
            </td>
          </tr>
        </tbody>
      </table></template
    >
  </section>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
