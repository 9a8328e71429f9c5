// What the columns of a list mean: guessed, or as they meant the last time with this source.
import { computed, ref, watch, type Ref } from 'vue'
import { BOOK_FIELDS, guessBookColumns, type BookField } from '~~/core/pricebook/bookTable'
import type { Table } from '~~/core/formats/readCsv'
import { call } from '~/lib/api'

const LONGEST_HEADING = 200
const isField = (name: string | null): name is BookField =>
  (BOOK_FIELDS as readonly (string | null)[]).includes(name)
export const headOf = ({ head }: Table) => head.map((h) => h.slice(0, LONGEST_HEADING))

export function useColumns(table: Ref<Table | null>, supplier: Ref<string>) {
  const columns = ref<(BookField | null)[]>([])
  const remembered = ref(false)
  /** The same source as last time: its columns mean what they meant then. */
  async function recall() {
    if (!table.value) return
    const body = { supplier: supplier.value, head: headOf(table.value) }
    const got = await call('columnMeaning', { body }).catch(() => null)
    remembered.value = Boolean(got?.known)
    if (got?.known) columns.value = got.columns.map((c) => (isField(c) ? c : null))
  }
  watch(supplier, () => void recall())
  async function understand(of: Table) {
    columns.value = guessBookColumns(of.head)
    await recall()
  }
  const has = (field: BookField) => columns.value.includes(field)
  /** What is still to say before the list can be looked at. */
  const asks = computed(() => {
    if (!has('code') && !has('part_number'))
      return 'Say which column holds the code or the part number.'
    if (!has('code') && !has('supplier') && !supplier.value.trim())
      return 'Say whose list it is: part numbers are a supplier’s own.'
    return ''
  })
  return { columns, remembered, asks, understand }
}
