// What screens are told of a work order.
import { notFound } from '../../core/errors/LedgerError'
import { invoiceState } from '../../core/invoices/invoiceState'
import { toMoney } from '../../core/money/formatMinor'
import { quoteState } from '../../core/quotes/quoteState'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import { asksPart } from '../asks/views'
import { historyOf } from '../http/queries'
import { mayHave } from './account'
import { aroundWork, workWithParties } from './around.queries'
import { billPart } from './billPart'
import { phasesPart } from './phasesPart'
import { linesEver } from './lines.queries'
import { chargeFrom, currentPricing, uncoveredAmong } from './uncovered'
import {
  accountPart,
  callBacksPart,
  customerPart,
  pricePart,
  ratesPart,
  visitsPart,
  workPart,
  type WorkRead,
} from './workOrderParts'

/** The papers around it: invoices, quotes, what was signed. */
function papersPart({ ctx, parties, around }: WorkRead) {
  const money = (minor: number) => toMoney(minor, parties.work.currency)
  return {
    invoices: around.invoices.map((i) => ({
      id: i.id,
      number: i.number,
      issueOn: i.issueOn,
      dueOn: i.dueOn,
      total: money(i.total),
      open: money(i.open),
      state: invoiceState(i),
    })),
    quotes: around.quotes.map((q) => ({
      id: q.id,
      number: q.number,
      state: quoteState(q, ctx.today),
      total: money(q.total),
    })),
    signatures: around.signatures.map(({ id, name, signedAt, takenBy, total, purpose, hash }) => ({
      ...{ id, name, signedAt, takenBy, purpose, total: money(total), kept: hash !== '' },
    })),
    photos: around.photos,
  }
}
export async function workOrderPaper(ctx: Ctx, id: string): Promise<Answer<'workOrder'>> {
  const parties = await workWithParties(ctx.tx, id)
  if (!parties || !(await mayHave(ctx, id))) throw notFound('work order')
  const { work, customer } = parties
  const ever = await linesEver(ctx.tx, id)
  const lines = ever.filter(({ removed }) => !removed)
  const around = await aroundWork(ctx.tx, id, ctx.now)
  const { at, ...time } = uncoveredAmong(ctx, work, { lines, ...around })
  const pricing = await currentPricing(ctx, { at, postcode: parties.site.postcode })
  const read: WorkRead = { ctx, parties, lines, around, pricing }
  const charge = chargeFrom(
    ctx,
    work,
    { agreed: customer.ownPrices, facts: pricing },
    { seconds: time.uncoveredSeconds, at },
  )
  const { callBacks, costMinor } = callBacksPart(read)
  return {
    ...workPart(read),
    ...accountPart(read),
    takenOut: ever
      // What is closed takes nothing back.
      .filter(({ removed }) => removed && !work.closed && !work.cancelled)
      .map((l) => ({
        ...{ id: l.id, version: l.version, name: l.name },
        net: toMoney(l.netMinor, work.currency),
      })),
    ...papersPart(read),
    customer: customerPart(read),
    visits: visitsPart(read),
    callBacks,
    callbackOf: parties.callbackOf,
    price: pricePart(read, costMinor),
    bill: billPart(read),
    phases: phasesPart(read),
    time: { ...time, charge: toMoney(charge?.netMinor ?? 0, work.currency) },
    rates: ratesPart(read),
    asks: await asksPart(ctx, 'work_order_id', id),
    history: await historyOf(ctx, 'work_order_id', [id]),
  }
}
