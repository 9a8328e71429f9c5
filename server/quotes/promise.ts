// What was accepted is promised: on the work order that the quote was begun from, with a further visit, or on a new one.
import { INSTALLATION } from '../../core/visits/workKinds'
import { insertLine } from '../visits/index'
import { updateRow } from '../customers/index'
import { HOUR, MINUTE } from '../../core/time/units'
import type { Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import type { PricedLine } from '../pricebook/priceLines'
import { makeWaitingVisit, makeWorkOrder } from '../visits/newWorkOrder'
import { workOrderById } from '../visits/queries'
import { quoteFacts } from './facts'
import { quoteLines, type QuoteRow } from './queries'

const SHORTEST = HOUR / 1000
const LONGEST = (8 * HOUR) / 1000
const STEP = (15 * MINUTE) / 1000

/** How long the promised work takes: what its lines cover, in whole quarters, within a working day. */
function secondsOf(lines: PricedLine[]): number {
  const covered = lines.reduce((sum, line) => sum + line.coversSeconds, 0)
  return Math.min(LONGEST, Math.max(SHORTEST, Math.ceil(covered / STEP) * STEP))
}

/**
 * Makes the promised work of a quote that was accepted, and names its work order. A work order belongs to
 * who pays: when somebody else pays, or what it was begun from is over, the work is one of its own.
 */
export async function promiseQuote(
  ctx: Ctx,
  quote: QuoteRow,
  body: Pick<Body<'answerQuote'>, 'workOrderId' | 'visitId'>,
): Promise<string> {
  const { tx } = ctx
  const customer = (await customerById(tx, quote.customerId))!
  const begun = quote.workOrderId ? await workOrderById(tx, quote.workOrderId, true) : null
  const lines = await quoteLines(tx, quote.id)
  const goesOn = begun && begun.customerId === quote.customerId && !begun.cancelled && !begun.closed
  const workOrderId = goesOn ? begun.id : body.workOrderId
  if (!goesOn) await newWorkOrder(ctx, quote, { id: workOrderId, customer, begun })
  const durationSeconds = secondsOf(lines)
  await makeWaitingVisit(ctx, { id: body.visitId, workOrderId, durationSeconds })
  for (const line of lines)
    await insertLine(tx, {
      ...line,
      id: ctx.id(),
      workOrderId,
      visitId: body.visitId,
      promisedMinor: line.netMinor,
      done: false,
    })
  if (customer.prospect) await updateRow(tx, 'customers', customer, { prospect: false })
  return workOrderId
}

async function newWorkOrder(
  ctx: Ctx,
  quote: QuoteRow,
  from: {
    id: string
    customer: NonNullable<Awaited<ReturnType<typeof customerById>>>
    begun: Awaited<ReturnType<typeof workOrderById>>
  },
): Promise<void> {
  const { id, customer, begun } = from
  const site = (await siteById(ctx.tx, quote.siteId))!
  const number = await makeWorkOrder(
    ctx,
    { customer, site },
    {
      id,
      title: quote.title,
      problem: quote.scope || quote.title,
      kind: INSTALLATION,
      contact: quote.contact,
      orderNumber: quote.orderNumber,
      priceLevelId: quote.priceLevelId,
      currency: quote.currency,
      answers: quote.answers.length ? quote.answers : (begun?.answers ?? []),
      // A quote from before it knew them begins with those of the visit to quote.
      equipmentId: quote.equipmentId ?? begun?.equipmentId ?? null,
      aboutLineId: quote.aboutLineId ?? begun?.aboutLineId ?? null,
      source: quote.source,
    },
  )
  await record(ctx, {
    subject: 'work',
    id,
    workOrderId: id,
    customerId: customer.id,
    fact: quoteFacts.promised({ number: quote.number, workOrder: number }),
  })
}
