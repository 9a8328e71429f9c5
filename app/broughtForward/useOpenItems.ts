// Open invoices and credits of the books before: tried dry, compared with what those books say, taken over, taken back.
import { computed, ref, watch, type Ref } from 'vue'
import {
  guessOpenItems,
  NEEDED,
  repeatedNumbers,
  type OpenItemField,
} from '~~/core/broughtForward/openItem'
import { decimalToMinor, toMoney } from '~~/core/money/formatMinor'
import { Decimal } from '~~/core/money/decimal'
import { readSum } from '~~/core/money/readSum'
import { roundToMinor } from '~~/core/money/roundToMinor'
import { counted } from '~~/core/text/counted'
import { PIECE_ROWS } from '~~/shared/imports'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useFileRows } from '~/lib/useFileRows'
import { useSession } from '~/stores/session'
import { count, leaveOutTwice, nothing, type Tried } from './tried'

const FIRST_ROW = 2
const LONGEST_CELL = 2000
/** A row with its place in the file. */
const rowAt = (cells: string[], i: number) => ({
  at: i + FIRST_ROW,
  cells: cells.map((cell) => cell.slice(0, LONGEST_CELL)),
})

export function useOpenItems(refresh: () => Promise<unknown>) {
  const session = useSession()
  const { currency } = session.me!.company
  const file = useFileRows<OpenItemField>(guessOpenItems)
  const { busy, problem, act } = useAct()
  const on = ref<string>(session.today)
  const makes = ref(true)
  /** what the books before say is open, as it was typed */
  const theirs = ref('')
  const tried = ref<Tried | null>(null)
  const taken = ref<{ id: string; count: number } | null>(null)
  file.whenOther(() => (tried.value = null))
  watch([on, makes], () => (tried.value = null))
  const minor = (amount: string) => decimalToMinor(amount, currency)
  const money = (amountMinor: number) => session.money(toMoney(amountMinor, currency))
  const missing = computed(() => NEEDED.filter((field) => !file.columns.value.includes(field)))

  async function run(forGood: boolean) {
    const { rows } = file.table.value!
    const id = forGood ? file.id() : newId()
    const sum = nothing()
    const again = new Set(repeatedNumbers(rows, file.columns.value))
    for (const i of again) leaveOutTwice(sum, i + FIRST_ROW, toMoney(0, currency))
    const sent = rows.map(rowAt).filter((_, i) => !again.has(i))
    await file.inPieces(sent, PIECE_ROWS, async (some) => {
      const body = {
        ...{ fileName: file.fileName.value, dry: !forGood, on: on.value },
        ...{ makeCustomers: makes.value, columns: file.columns.value, rows: some },
      }
      const piece = await call('bringOpenItems', { params: { id }, body })
      for (const row of piece.rows) count(sum, row)
      sum.openMinor += minor(piece.open.amount)
      sum.creditMinor += minor(piece.credits.amount)
      if (forGood) taken.value = { id, count: sum.invoices + sum.credits }
    })
    if (forGood) file.table.value = null
    else tried.value = sum
  }
  const differenceMinor = useDifference(tried, theirs)
  const undo = (id: string) =>
    act(async () => {
      const { removed, kept } = await call('undoOpenItems', { params: { id } })
      file.said.value = `Taken back: ${counted(removed, 'invoice or credit', 'invoices and credits')} taken out${kept ? `, ${kept} stay because something was done with them since` : ''}.`
      taken.value = null
      await refresh()
    })
  const go = (forGood: boolean) =>
    act(async () => {
      await run(forGood)
      await refresh()
    })
  async function choose(files: File[]) {
    taken.value = null
    await file.choose(files)
  }
  return {
    ...{ ...file, choose, busy, problem, on, makes, theirs, tried, taken, missing },
    ...{ money, differenceMinor, undo, go },
  }
}

/** What the books before say, less what the file says; null while nothing is typed that is a sum. */
function useDifference(tried: Ref<Tried | null>, theirs: Ref<string>) {
  const { company } = useSession().me!
  return computed(() => {
    const typed = readSum(theirs.value, company.locale)
    if (typed === null || !tried.value) return null
    const { openMinor, creditMinor } = tried.value
    const typedMinor = roundToMinor(new Decimal(typed), company.currency)
    return typedMinor - (openMinor - creditMinor)
  })
}
