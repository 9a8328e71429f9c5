// Rows of somebody's file: chosen, read, given their meaning, and sent piece by piece with progress.
import { ref, shallowRef, watch, type Ref } from 'vue'
import { readCsv, type Table } from '~~/core/formats/readCsv'
import { newId } from './api'
import { tableOf, textOf } from './readTable'

const LARGEST = 20_000_000
const MOST_ROWS = 50_000

/**
 * @param guess what each column means, by its heading
 * @param read the file's text as a table
 */
export function useFileRows<Means extends string>(
  guess: (head: readonly string[]) => (Means | null)[],
  read: (text: string) => Table = readCsv,
  mostRows = MOST_ROWS,
) {
  const fileName = ref('')
  const table = shallowRef<Table | null>(null)
  const columns = ref([]) as Ref<(Means | null)[]>
  /** why a file was not read, or what became of one */
  const said = ref('')
  const progress = ref(0)
  /** Named once for each file: what is taken in again after it broke off is the same import, and no row comes twice. */
  let id = newId()
  async function choose([file]: File[]) {
    said.value = ''
    if (!file) return
    id = newId()
    table.value = null
    try {
      const got = tableOf(await textOf(file, LARGEST), mostRows, read)
      table.value = got
      columns.value = guess(got.head)
      fileName.value = file.name
    } catch (error) {
      said.value = `${file.name}: ${(error as Error).message}`
    }
  }
  /** Sends rows piece by piece; where they stood is told by who sends them. */
  async function inPieces<Row>(
    rows: readonly Row[],
    size: number,
    send: (piece: Row[], first: number) => Promise<void>,
  ): Promise<void> {
    progress.value = 0
    for (let i = 0; i < rows.length; i += size) {
      await send(rows.slice(i, i + size), i)
      progress.value = Math.min(100, Math.round(((i + size) / rows.length) * 100))
    }
  }
  /** With another file, or other columns, what was tried says nothing any more. */
  const whenOther = (act: () => void) => watch([columns, table], act, { deep: true })
  return { fileName, table, columns, said, progress, choose, inPieces, whenOther, id: () => id }
}
