// Open invoices and credits from the books before: piece by piece, first dry, then for good.
import {
  NEEDED,
  readOpenItem,
  type ItemProblem,
  type OpenItem,
} from '../../core/broughtForward/openItem'
import { willCome } from '../../core/documents/numberSeries'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { searchKey } from '../../core/text/searchKey'
import type { Answer, Body } from '../../shared/api'
import { importById } from '../customers/index'
import type { Ctx } from '../http/context'
import { lockFirm } from '../settings/index'
import { allSeries, type SeriesRow } from '../settings/numbers.queries'
import { payersOf, type Payer } from './payers'
import { numbersThere } from './queries'
import { takeOver, type Taken } from './takeOver'

type Given = Body<'bringOpenItems'>
type Told = Answer<'bringOpenItems'>['rows'][number]
interface Read {
  at: number
  cells: string[]
  item: OpenItem | null
  problems: ItemProblem[]
}

export async function bringOpenItems(
  ctx: Ctx,
  importId: string,
  body: Given,
): Promise<Answer<'bringOpenItems'>> {
  checkColumns(body)
  const earlier = await importById(ctx.tx, importId)
  if (earlier?.undoneAt) throw conflict('undone_already', 'This import has been taken back.')
  if (body.on > ctx.today) throw invalid('on', 'That day has not come yet.')
  // One at a time: no number is looked for while somebody else takes it.
  if (!body.dry) await lockFirm(ctx.tx)
  const firm = { today: ctx.today, locale: ctx.company.locale, currency: ctx.company.currency }
  const rows = body.rows.map((row): Read => ({
    ...row,
    ...readOpenItem(row.cells, body.columns, firm),
  }))
  const items = rows.flatMap(({ item }) => item ?? [])
  const there = await numbersTaken(ctx, items)
  const payers = await payersOf(ctx, items)
  const taken: Taken[] = []
  const told: Told[] = []
  for (const row of rows) {
    const looked = lookAt(row, { there, payers, on: body.on, makes: body.makeCustomers })
    told.push(tell(ctx, row, looked))
    if ('payer' in looked) {
      taken.push({ item: row.item!, payer: looked.payer })
      there.take(row.item!.number)
    }
  }
  const skipped = told.length - taken.length
  if (!body.dry && taken.length) await takeOver(ctx, importId, body, { taken, skipped })
  return {
    rows: told,
    added: taken.length,
    skipped,
    ...sumsOf(ctx, taken),
  }
}
function checkColumns({ columns }: Given): void {
  const missing = NEEDED.find((field) => !columns.includes(field))
  if (missing) throw invalid('columns', `Say which column holds what is meant by ${missing}.`)
  const named = columns.filter(Boolean)
  if (new Set(named).size !== named.length)
    throw invalid('columns', 'Two columns have the same meaning.')
}
/** Whether a number is somebody's already, or will be one of ours. */
async function numbersTaken(ctx: Ctx, items: readonly OpenItem[]) {
  const numbers = items.map(({ number }) => number)
  const there = numbers.length ? await numbersThere(ctx.tx, numbers) : []
  const known = new Set(there.map((number) => number.toLowerCase()))
  const series = await allSeries(ctx.tx)
  const year = Number(ctx.today.slice(0, 4))
  const comes = ({ kind, ...row }: SeriesRow, number: string) =>
    (kind === 'invoice' || kind === 'receipt') && willCome(row, { next: row.next, year }, number)
  return {
    has(number: string): 'there' | 'comes' | null {
      if (known.has(number.toLowerCase())) return 'there'
      return series.some((row) => comes(row, number)) ? 'comes' : null
    },
    /** A row of the same file may have it, too. */
    take: (number: string) => void known.add(number.toLowerCase()),
  }
}
interface Around {
  on: string
  there: Awaited<ReturnType<typeof numbersTaken>>
  payers: Awaited<ReturnType<typeof payersOf>>
  makes: boolean
}
type Looked = { payer: Payer } | { state: 'wrong' | 'settled' | 'double'; problems: ItemProblem[] }
const wrong = (field: ItemProblem['field'], message: string) => ({
  state: 'wrong' as const,
  problems: [{ field, message }],
})
const WAYS = {
  there: 'This number is there already.',
  comes: 'Our own numbers come to this one. Let them go on after it first (Set-up, numbers).',
} as const
/** One row: taken for somebody, or left out and why. */
function lookAt({ item, problems }: Read, { there, payers, on, makes }: Around): Looked {
  if (!item) return { state: 'wrong', problems }
  if (item.openMinor === 0) return { state: 'settled', problems: [] }
  if (item.issuedOn > on)
    return wrong('issued', 'It was issued after the day from which these count here.')
  const taken = there.has(item.number)
  if (taken)
    return { ...wrong('number', WAYS[taken]), state: taken === 'there' ? 'double' : 'wrong' }
  const { payer, several } = payers.find(item)
  if (payer) return { payer }
  const message = several
    ? 'Several customers have this name. A telephone or mail address tells them apart.'
    : 'Nobody here has this name.'
  if (several || !makes) return wrong('customer', message)
  return { payer: payers.make(item) }
}
function tell({ company }: Ctx, { at, cells, item, problems }: Read, looked: Looked): Told {
  return {
    row: at,
    state: stateOf(item, looked),
    number: (item?.number ?? cells.find(Boolean) ?? '').slice(0, 60),
    customer: item?.customer ?? '',
    ...whoseOf(item, looked),
    open: toMoney(item?.openMinor ?? 0, company.currency),
    problems: 'problems' in looked ? looked.problems : problems,
  }
}
/** Whose it becomes: somebody new, or somebody who is called otherwise here. */
function whoseOf(item: OpenItem | null, looked: Looked): Pick<Told, 'newCustomer' | 'of'> {
  if (!item || !('payer' in looked)) return { newCustomer: false, of: '' }
  const { name, isNew } = looked.payer
  const isOther = searchKey(name) !== searchKey(item.customer)
  return { newCustomer: isNew, of: isOther ? name : '' }
}
function stateOf(item: OpenItem | null, looked: Looked): Told['state'] {
  if ('state' in looked) return looked.state
  return item!.openMinor < 0 ? 'credit' : 'new'
}
const sumMinor = (taken: readonly Taken[], sign: 1 | -1): number =>
  taken.reduce((sum, { item }) => sum + Math.max(0, sign * item.openMinor), 0)
const sumsOf = ({ company }: Ctx, taken: readonly Taken[]) => ({
  open: toMoney(sumMinor(taken, 1), company.currency),
  credits: toMoney(sumMinor(taken, -1), company.currency),
})
