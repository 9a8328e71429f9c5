// A price list on its way into the book: read, its columns understood, looked at, taken in.
import { reactive, ref, watch, type Ref } from 'vue'
import { usualTaxClass } from '~~/core/pricebook/usualTaxClass'
import type { BookField } from '~~/core/pricebook/bookTable'
import type { Table } from '~~/core/formats/readCsv'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { tableOf, textOf } from '~/lib/readTable'
import { headOf, useColumns } from './useColumns'
import { watchImport, type Progress } from './watchImport'

const [MOST_BYTES, MOST_ROWS, PIECE] = [30_000_000, 50_000, 2000]
interface Sent extends Table {
  supplier: string
  fileName: string
  columns: (BookField | null)[]
}
/** Piece by piece, since a list may have tens of thousands of rows. */
async function sendRows(id: string, { rows, ...list }: Sent, progress: Progress): Promise<void> {
  for (let i = 0; i < rows.length; i += PIECE) {
    Object.assign(progress, { what: 'sending', done: i, of: rows.length })
    const piece = rows.slice(i, i + PIECE).map((cells, j) => ({
      row: i + j + 2,
      cells: cells.map((c) => c.slice(0, 4000)),
    }))
    await call('stagePrices', { params: { id }, body: { ...list, rows: piece } })
  }
}
/** A list of prices on its way in; `rules` say how new entries are usually taxed. */
export function usePriceList(rules: Readonly<Ref<Answer<'pricing'> | null>>) {
  const table = ref<Table | null>(null)
  const fileName = ref('')
  const supplier = ref('')
  const { columns, remembered, asks, understand } = useColumns(table, supplier)
  const options = reactive({
    category: '',
    taxClass: '',
    fixed: 'keep' as 'keep' | 'by_rule',
    vanished: 'keep' as 'keep' | 'retire',
  })
  const seen = ref<Answer<'lookAtPrices'> | null>(null)
  const progress = reactive({ what: '', done: 0, of: 0 })
  let id = newId()
  watch(
    rules,
    (now) => (options.taxClass ||= usualTaxClass(now?.taxClasses ?? [], 'goods') ?? ''),
    { immediate: true },
  )
  /** Reads a file; throws a sentence where it is none. */
  async function read(file: File) {
    table.value = seen.value = null
    table.value = tableOf(await textOf(file, MOST_BYTES), MOST_ROWS)
    fileName.value = file.name
    await understand(table.value)
  }
  // What was looked at is what is done.
  watch([columns, supplier, options], () => (seen.value = null), { deep: true })
  async function look() {
    id = newId()
    const rows = {
      supplier: supplier.value.trim(),
      fileName: fileName.value,
      columns: columns.value,
    }
    await sendRows(id, { ...rows, ...table.value!, head: headOf(table.value!) }, progress)
    const asked = call('lookAtPrices', { params: { id }, body: { ...options } })
    seen.value = await watchImport(id, asked, progress)
  }
  async function take(): Promise<Answer<'takePrices'>> {
    const { stamp } = seen.value!
    const asked = call('takePrices', { params: { id }, body: { ...options, stamp } })
    const done = await watchImport(id, asked, progress)
    seen.value = table.value = null
    return done
  }
  return reactive({
    table,
    fileName,
    supplier,
    columns,
    remembered,
    options,
    seen,
    progress,
    asks,
    read,
    look,
    take,
  })
}
export type PriceList = ReturnType<typeof usePriceList>
