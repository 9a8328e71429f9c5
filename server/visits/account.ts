// The account of a work order: promised, done, billed, paid; its state follows from it.
import { notFound } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { paidByLine } from '../../core/costing/paidByLine'
import { workOrderAccount, type Account } from '../../core/costing/workOrderAccount'
import { workOrderState } from '../../core/visits/workOrderState'
import type { TaxRate } from '../../core/tax/taxTotals'
import type { Ctx } from '../http/context'
import { quotesOfWork } from '../quotes/queries'
import { billedLines, linesOf, type BilledLine, type LineRow } from './lines.queries'
import { invoicesOfWork } from './papers.queries'
import { mayTechnicianSee, visitsOfWork } from './visits.queries'
import { setWorkOrderFacts, workOrderById, type WorkOrderRow } from './queries'

/** A work order that the asker may see; a technician only those with a visit of their own. */
export async function visibleWorkOrder(ctx: Ctx, id: string, lock = false): Promise<WorkOrderRow> {
  const work = await workOrderById(ctx.tx, id, lock)
  if (!work || !(await mayHave(ctx, id))) throw notFound('work order')
  return work
}
export const mayHave = async ({ tx, actor }: Ctx, id: string): Promise<boolean> =>
  actor?.role !== 'technician' || mayTechnicianSee(tx, actor.id, id)
type WholeAccount = Account & { billedElsewhere: number }
export const accountOf = async (
  ctx: Ctx,
  lines: LineRow[],
  workOrderId: string,
): Promise<WholeAccount> => accountFrom(lines, await billedLines(ctx.tx, workOrderId))
export function accountFrom(lines: LineRow[], rows: BilledLine[]): WholeAccount {
  const billed = new Map<string, number>()
  const paid = new Map<string, number>()
  let billedElsewhere = 0
  for (const invoiceId of new Set(rows.map((r) => r.invoiceId))) {
    const own = rows.filter((r) => r.invoiceId === invoiceId)
    const paidParts = paidByLine({
      payableMinor: own[0]!.payable,
      paidMinor: own[0]!.paid,
      nets: own.map((r) => r.netMinor),
    })
    own.forEach((r, i) => {
      if (!r.lineId) billedElsewhere += r.netMinor
      else {
        billed.set(r.lineId, (billed.get(r.lineId) ?? 0) + r.netMinor)
        paid.set(r.lineId, (paid.get(r.lineId) ?? 0) + paidParts[i]!)
      }
    })
  }
  return {
    ...workOrderAccount(
      lines.map((l) => ({
        id: l.id,
        promisedMinor: l.promisedMinor,
        doneMinor: l.done ? l.netMinor : 0,
        billedMinor: billed.get(l.id) ?? 0,
        paidMinor: paid.get(l.id) ?? 0,
      })),
    ),
    billedElsewhere,
  }
}
/** After anything changed: writes the state and what is to bill as they now follow from the facts. */
export async function refreshWorkOrder(ctx: Ctx, id: string): Promise<void> {
  const work = (await workOrderById(ctx.tx, id, true))!
  const lines = await linesOf(ctx.tx, id)
  const account = await accountOf(ctx, lines, id)
  const visits = await visitsOfWork(ctx.tx, id)
  const invoices = await invoicesOfWork(ctx.tx, id)
  const quotes = await quotesOfWork(ctx.tx, id)
  const state = workOrderState({
    cancelled: work.cancelled,
    closed: work.closed,
    visits: visits.map((v) => ({
      state: v.state,
      placed: v.startAt !== null && v.technicianId !== null,
    })),
    toBillMinor: account.toBillMinor,
    billedMinor: account.billedMinor,
    unpaidMinor: invoices.reduce((sum, i) => sum + i.open, 0),
    free: work.callbackOf !== null,
    quoted: quotes.length > 0 && !quotes.some((q) => q.state === 'accepted'),
  })
  const done = ['to_bill', 'billed', 'closed'].includes(state)
  await setWorkOrderFacts(ctx.tx, id, {
    state,
    toBill: done || account.billedMinor > 0 ? account.toBillMinor : 0,
    doneAt: done ? ctx.now : null,
  })
}
export const taxesOf = (classes: Map<string, TaxRate[]>, taxClass: string): TaxRate[] =>
  classes.get(taxClass) ?? []
/** A line as a paper prices it: its amounts are whole, so that its net is taken over to the unit. */
export const asPaperLine = (l: LineRow, classes: Map<string, TaxRate[]>) => ({
  quantity: l.quantity,
  unitPrice: l.unitPrice,
  discountMinor: l.discountMinor,
  taxes: taxesOf(classes, l.taxClass),
})
export const partialLine = (
  netMinor: number,
  l: LineRow,
  classes: Map<string, TaxRate[]>,
  currency: string,
) => ({
  quantity: '1',
  unitPrice: minorToDecimal(netMinor, currency),
  discountMinor: 0,
  taxes: taxesOf(classes, l.taxClass),
})
