// The account of a work order: promised, done, billed, paid; its state follows from it.
import { notFound } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { paidByLine } from '../../core/costing/paidByLine'
import { workOrderAccount, type Account } from '../../core/costing/workOrderAccount'
import { wantsVisit, workOrderState, type WorkOrderFacts } from '../../core/visits/workOrderState'
import type { TaxRate } from '../../core/tax/taxTotals'
import type { Ctx } from '../http/context'
import { quotesOfWork } from '../quotes/queries'
import { billedLines, linesOf, type BilledLine, type LineRow } from './lines.queries'
import { invoicesOfWork } from './papers.queries'
import { makeWaitingVisit } from './newWorkOrder'
import { uncoveredOf } from './uncovered'
import { mayTechnicianSee, setVisitState, visitsOfWork, type VisitRow } from './visits.queries'
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
/** Promised, and not done. */
export const isUndone = ({ done, promisedMinor }: LineRow): boolean => !done && promisedMinor > 0
const isPlaced = (v: VisitRow): boolean => v.startAt !== null && v.technicianId !== null
/** Made because the work order had no other visit to come, and nobody gave it a place since. */
const waitsByRule = (v: VisitRow): boolean =>
  v.againOf !== null && v.state === 'planned' && v.startAt === null
/** What the state of a work order follows from beside its visits, as its rows say it now. */
async function moneyOf(ctx: Ctx, work: WorkOrderRow): Promise<Omit<WorkOrderFacts, 'visits'>> {
  const lines = await linesOf(ctx.tx, work.id)
  const { toBillMinor, billedMinor } = await accountOf(ctx, lines, work.id)
  const invoices = await invoicesOfWork(ctx.tx, work.id)
  const quotes = await quotesOfWork(ctx.tx, work.id)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, lines)
  const undone = lines.filter(isUndone).length
  const { cancelled, closed, callbackOf } = work
  return {
    ...{ cancelled, closed, toBillMinor, billedMinor, uncoveredSeconds, undone },
    unpaidMinor: invoices.reduce((sum, i) => sum + i.open, 0),
    free: callbackOf !== null,
    quoted: quotes.length > 0 && !quotes.some((q) => q.state === 'accepted'),
  }
}
const visitFactsOf = (visits: readonly VisitRow[]): WorkOrderFacts['visits'] =>
  visits.map((v) => ({ state: v.state, placed: isPlaced(v) }))
/** The state that follows, and what is kept with it. */
export function standingOf(facts: WorkOrderFacts) {
  const state = workOrderState(facts)
  const done = ['to_bill', 'billed', 'closed'].includes(state)
  return {
    ...{ state, done },
    toBill: done || facts.billedMinor > 0 ? facts.toBillMinor : 0,
    uncovered: state === 'to_bill' ? (facts.uncoveredSeconds ?? 0) : 0,
  }
}
/**
 * A work order that needs a visit and has none to come waits with one of its own, in the tray, until it has a place
 * or another visit takes its part.
 */
async function keepOneWaiting(
  ctx: Ctx,
  work: WorkOrderRow,
  money: Omit<WorkOrderFacts, 'visits'>,
): Promise<VisitRow[]> {
  const all = await visitsOfWork(ctx.tx, work.id)
  const byRule = all.filter(waitsByRule)
  const others = all.filter((v) => !byRule.includes(v))
  const wants = wantsVisit({ ...money, visits: visitFactsOf(others) })
  // The closed door, where there was one: what was proposed there is said of the visit that comes again.
  const last = others.findLast(({ state }) => state === 'no_access') ?? others.at(-1)
  if (wants === byRule.length > 0 || !last) return all
  for (const { id } of byRule) await setVisitState(ctx.tx, id, 'cancelled')
  if (wants)
    await makeWaitingVisit(ctx, {
      ...{ id: ctx.id(), workOrderId: work.id, againOf: last.id },
      ...{ durationSeconds: last.durationSeconds, phaseId: last.phaseId },
    })
  return visitsOfWork(ctx.tx, work.id)
}
/** After anything changed: writes the state and what is to bill as they now follow from the facts. */
export async function refreshWorkOrder(ctx: Ctx, id: string): Promise<void> {
  const work = (await workOrderById(ctx.tx, id, true))!
  const money = await moneyOf(ctx, work)
  const visits = visitFactsOf(await keepOneWaiting(ctx, work, money))
  const { state, done, toBill, uncovered } = standingOf({ ...money, visits })
  await setWorkOrderFacts(ctx.tx, id, {
    ...{ state, toBill, uncovered },
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
