// Acts on care agreements: made, renewed, billed by the year, their visits booked in one act.
import { SERVICE } from '../../core/visits/workKinds'
import { updateRow } from '../customers/index'
import { agreementFacts } from './facts'
import { workFacts } from '../visits/facts'
import { nextVisitDue } from '../../core/agreements/nextVisitDue'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { plusDays, plusMonths } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder } from '../visits/account'
import { putLines } from '../visits/lines'
import { makeWaitingVisit, makeWorkOrder } from '../visits/newWorkOrder'
import { workOrderById } from '../visits/queries'
import {
  agreementById,
  extendAgreement,
  insertAgreement,
  planById,
  setYear,
  setVisitDue,
  type AgreementRow,
} from './queries'
import { oneRow, type Row } from './views'

export async function addAgreement(ctx: Ctx, body: Body<'newAgreement'>): Promise<Row> {
  const customer = await customerById(ctx.tx, body.customerId, true)
  if (!customer) throw invalid('customerId', 'Choose the customer.')
  if ((await siteById(ctx.tx, body.siteId))?.customerId !== customer.id)
    throw invalid('siteId', 'Choose a site of this customer.')
  const plan = await planById(ctx.tx, body.planId)
  if (!plan || plan.retired) throw invalid('planId', 'Choose the plan.')
  const endsOn = plusDays(plusMonths(body.startsOn, 12), -1)
  await insertAgreement(ctx.tx, {
    id: body.id,
    customerId: customer.id,
    siteId: body.siteId,
    plan: plan.name,
    planId: plan.id,
    startsOn: body.startsOn,
    endsOn,
    visitDueOn: nextVisitDue(body.startsOn, plan.visitsAYear, endsOn) ?? endsOn,
  })
  // The plan's price level holds from the first day, where the customer has none of their own.
  if (plan.levelId && !customer.priceLevelId)
    await updateRow(ctx.tx, 'customers', customer, {
      priceLevelId: plan.levelId,
    })
  await record(ctx, {
    subject: 'customer',
    id: customer.id,
    customerId: customer.id,
    fact: agreementFacts.made({ plan: plan.name, from: body.startsOn, until: endsOn }),
  })
  return oneRow(ctx, body.id)
}
export async function renewAgreement(ctx: Ctx, id: string, version: number): Promise<Row> {
  const a = await agreementById(ctx.tx, id)
  if (!a) throw notFound('agreement')
  const endsOn = plusMonths(a.endsOn, 12)
  const plan = a.planId ? await planById(ctx.tx, a.planId) : null
  const due = a.visitDueOn ?? (plan ? nextVisitDue(a.endsOn, plan.visitsAYear, endsOn) : null)
  if (!(await extendAgreement(ctx.tx, { id, version }, endsOn, due)))
    throw conflict('stale', 'Someone changed this agreement in the meantime.', {
      current: await oneRow(ctx, id),
      yours: { endsOn },
    })
  await record(ctx, {
    subject: 'customer',
    id: a.customerId,
    customerId: a.customerId,
    fact: agreementFacts.renewed({ plan: a.plan, until: endsOn }),
  })
  return oneRow(ctx, id)
}

/** The next year that is not billed yet; one price is for one year, however far the agreement was renewed. */
function yearToBill(a: AgreementRow) {
  if (a.billedUntil && a.billedUntil >= a.endsOn)
    throw conflict('billed_already', `This agreement is billed until ${a.billedUntil}.`)
  if (!a.siteId || !a.price || new Decimal(a.price).isZero())
    throw conflict(
      'no_price',
      'The plan of this agreement has no price, or the agreement names no site.',
    )
  const from = a.billedUntil ? plusDays(a.billedUntil, 1) : a.startsOn
  const year = plusDays(plusMonths(from, 12), -1)
  return { from, until: year < a.endsOn ? year : a.endsOn, price: a.price, siteId: a.siteId }
}
/**
 * The next year of an agreement that is not billed yet, ready to be billed as any work is: a work order without a visit, one line. Where one
 * waits already, it is that one.
 */
export async function billAgreement(
  ctx: Ctx,
  id: string,
  body: Body<'billAgreement'>,
): Promise<Answer<'billAgreement'>> {
  const a = await agreementById(ctx.tx, id)
  if (!a) throw notFound('agreement')
  const waits = a.yearWork && (await workOrderById(ctx.tx, a.yearWork))
  if (waits) return { workOrderId: waits.id, number: waits.number }
  const { from, until, price, siteId } = yearToBill(a)
  const customer = (await customerById(ctx.tx, a.customerId))!
  const site = (await siteById(ctx.tx, siteId))!
  const title = `Care agreement ${a.plan}, ${from} to ${until}`
  const { workOrderId, lineId } = body
  const number = await makeWorkOrder(
    ctx,
    { customer, site },
    // The price is the plan's: a level of the customer takes nothing off it.
    { id: workOrderId, title, problem: title, kind: SERVICE, priceLevelId: null },
  )
  const work = (await workOrderById(ctx.tx, workOrderId))!
  const unitPrice = new Decimal(price).toFixed(2)
  const year = { kind: 'charge' as const, name: title, quantity: '1', unitPrice, done: true }
  await putLines(ctx, { work }, [{ id: lineId, entryId: null, ...year }])
  await setYear(ctx.tx, id, { workOrderId, until })
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: a.customerId,
    fact: agreementFacts.yearToBill({ plan: a.plan, from, until }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return { workOrderId, number }
}
type DueVisit = Body<'bookDueVisits'>['items'][number]
/** Why no visit can be made of an agreement, or nothing. */
function whyNone(a: AgreementRow | null): string {
  if (!a) return 'there is no such agreement'
  if (!a.siteId) return `${a.customer}: the agreement names no site`
  if (!a.visitDueOn) return `${a.customer}: no visit is due`
  return a.booked ? `${a.customer}: ${a.booked} is waiting already` : ''
}
async function bookDueVisit(ctx: Ctx, a: AgreementRow, item: DueVisit): Promise<string> {
  const { workOrderId, visitId } = item
  const dueOn = a.visitDueOn!
  const customer = (await customerById(ctx.tx, a.customerId))!
  const site = (await siteById(ctx.tx, a.siteId!))!
  const plan = a.planId ? await planById(ctx.tx, a.planId) : null
  const number = await makeWorkOrder(
    ctx,
    { customer, site },
    {
      id: workOrderId,
      title: plan?.work ?? `${a.plan} visit`,
      problem: `Visit of the ${a.plan} agreement, due by ${dueOn}.`,
      kind: SERVICE,
    },
  )
  const durationSeconds = plan?.visitSeconds ?? 3600
  await makeWaitingVisit(ctx, { id: visitId, workOrderId, durationSeconds })
  const next = plan ? nextVisitDue(dueOn, plan.visitsAYear, a.endsOn) : null
  await setVisitDue(ctx.tx, a.id, next)
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: customer.id,
    fact: workFacts.madeForAgreement({ number, plan: a.plan, dueOn }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return number
}
/** Makes a work order without a slot for each visit that is due; what cannot be made is said, and the rest goes on. */
export async function bookDueVisits(
  ctx: Ctx,
  body: Body<'bookDueVisits'>,
): Promise<Answer<'bookDueVisits'>> {
  const made: Answer<'bookDueVisits'>['made'] = []
  const skipped: Answer<'bookDueVisits'>['skipped'] = []
  for (const item of body.items) {
    const a = await agreementById(ctx.tx, item.agreementId)
    const why = whyNone(a)
    if (why) skipped.push({ agreementId: item.agreementId, why })
    else made.push({ agreementId: a!.id, number: await bookDueVisit(ctx, a!, item) })
  }
  return { made, skipped }
}
