// Care agreements: what is due by territory and month, booked in one act; renewal.
import { agreementFacts } from './facts'
import { workFacts } from '../visits/facts'
import { agreementState } from '../../core/agreements/agreementState'
import { nextVisitDue } from '../../core/agreements/nextVisitDue'
import { territoryOf } from '../../core/customers/territoryOf'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { plusDays, plusMonths } from '../../core/time/zone'
import type { Answer, Body, Query } from '../../shared/api'
import { customerById, levels, updateRow } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import { makeInvoice } from '../invoices/make'
import { nextNumber, territories } from '../settings/queries'
import { refreshWorkOrder } from '../visits/account'
import { detailsOf } from '../visits/details'
import { putLines } from '../visits/lines'
import { insertVisit } from '../visits/visits.queries'
import { insertWorkOrder, workOrderById } from '../visits/queries'
import {
  agreementById,
  agreementPage,
  allPlans,
  extendAgreement,
  insertAgreement,
  insertPlan,
  planById,
  setBilled,
  setVisitDue,
  type AgreementRow,
} from './queries'
import { WORK_ORDER_NUMBERS } from '../visits/numbers'

type Row = Answer<'agreements'>['items'][number]
const shape =
  (ctx: Ctx, areas: { name: string; postcodes: string[] }[]) =>
  (a: AgreementRow): Row => ({
    id: a.id,
    version: a.version,
    customerId: a.customerId,
    customer: a.customer,
    phone: a.phone,
    site: [a.site, a.line1, a.town].filter(Boolean).join(', '),
    territory: territoryOf(a.postcode, areas)?.name ?? '',
    plan: a.plan,
    startsOn: a.startsOn,
    endsOn: a.endsOn,
    visitDueOn: a.visitDueOn,
    state: agreementState(a, ctx.today),
    lastVisitOn: a.lastVisitOn,
    booked: a.booked ?? '',
    price: a.price ?? '',
    billedUntil: a.billedUntil,
  })
export async function listAgreements(
  ctx: Ctx,
  query: Query<'agreements'>,
): Promise<Answer<'agreements'>> {
  const p = paging(query, ['due'], 'due')
  const areas = await territories(ctx.tx)
  const { rows, total } = await agreementPage(ctx.tx, {
    ...p,
    q: query.q ?? '',
    today: ctx.today,
    dueBy: query.due ? plusDays(plusMonths(`${query.due}-01`, 1), -1) : null,
    endingBy: query.ending ? plusDays(ctx.today, 60) : null,
    postcodes: query.territory
      ? (areas.find((a) => a.name === query.territory)?.postcodes ?? [])
      : null,
  })
  return pageOf(rows, total, p.limit, shape(ctx, areas))
}
async function oneRow(ctx: Ctx, id: string): Promise<Row> {
  return shape(ctx, await territories(ctx.tx))((await agreementById(ctx.tx, id))!)
}
export async function addAgreement(ctx: Ctx, body: Body<'newAgreement'>): Promise<Row> {
  const customer = await customerById(ctx.tx, body.customerId, true)
  if (!customer) throw invalid('customerId', 'Choose the customer.')
  if ((await siteById(ctx.tx, body.siteId))?.customerId !== customer.id)
    throw invalid('siteId', 'Choose a site of this customer.')
  const plan = await planById(ctx.tx, body.planId)
  if (!plan) throw invalid('planId', 'Choose the plan.')
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
    await updateRow(ctx.tx, 'customers', customer.id, customer.version, {
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
  if (!(await extendAgreement(ctx.tx, id, version, endsOn, due)))
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

/** The next year of an agreement that is not billed yet, as an invoice of its own: a work order without a visit, one line, sent to the customer's addresses. */
export async function billAgreement(
  ctx: Ctx,
  id: string,
  body: Body<'billAgreement'>,
): Promise<Answer<'billAgreement'>> {
  const a = await agreementById(ctx.tx, id)
  if (!a) throw notFound('agreement')
  if (a.billedUntil && a.billedUntil >= a.endsOn)
    throw conflict('billed_already', `This agreement is billed until ${a.billedUntil}.`)
  if (!a.siteId || !a.price || new Decimal(a.price).isZero())
    throw conflict(
      'no_price',
      'The plan of this agreement has no price, or the agreement names no site.',
    )
  const from = a.billedUntil ? plusDays(a.billedUntil, 1) : a.startsOn
  const customer = (await customerById(ctx.tx, a.customerId))!
  const site = (await siteById(ctx.tx, a.siteId))!
  const number = await nextNumber(ctx.tx, WORK_ORDER_NUMBERS)
  // One price is for one year, however far the agreement was renewed.
  const year = plusDays(plusMonths(from, 12), -1)
  const until = year < a.endsOn ? year : a.endsOn
  const title = `Care agreement ${a.plan}, ${from} to ${until}`
  await insertWorkOrder(ctx.tx, {
    id: body.workOrderId,
    number,
    customerId: customer.id,
    siteId: site.id,
    title,
    problem: title,
    kind: 'service',
    contact: { name: '', phone: customer.phone },
    orderNumber: '',
    priceLevelId: null,
    currency: ctx.company.currency,
    now: ctx.now,
    details: detailsOf(customer, site),
    answers: [],
    equipmentId: null,
    printedNote: customer.printedNote,
    assignedTo: null,
    source: '',
  })
  const work = (await workOrderById(ctx.tx, body.workOrderId))!
  await putLines(
    ctx,
    work,
    null,
    [
      {
        id: body.lineId,
        entryId: null,
        kind: 'charge',
        name: title,
        quantity: '1',
        unitPrice: new Decimal(a.price).toFixed(2),
        done: true,
      },
    ],
    false,
  )
  await setBilled(ctx.tx, id, until)
  const to = [customer.email, customer.email2].filter(Boolean)
  const invoice = await makeInvoice(ctx, body.workOrderId, {
    id: body.invoiceId,
    dueOn: null,
    to,
    subject: '',
    body: '',
    shownTotal: '',
  })
  return { invoiceId: body.invoiceId, number: invoice.paper.number }
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
    const skip = (why: string) => void skipped.push({ agreementId: item.agreementId, why })
    if (!a) skip('there is no such agreement')
    else if (!a.siteId) skip(`${a.customer}: the agreement names no site`)
    else if (!a.visitDueOn) skip(`${a.customer}: no visit is due`)
    else if (a.booked) skip(`${a.customer}: ${a.booked} is waiting already`)
    else {
      const customer = (await customerById(ctx.tx, a.customerId))!
      const site = (await siteById(ctx.tx, a.siteId))!
      const plan = a.planId ? await planById(ctx.tx, a.planId) : null
      const number = await nextNumber(ctx.tx, WORK_ORDER_NUMBERS)
      await insertWorkOrder(ctx.tx, {
        id: item.workOrderId,
        number,
        customerId: customer.id,
        siteId: site.id,
        title: plan?.work ?? `${a.plan} visit`,
        problem: `Visit of the ${a.plan} agreement, due by ${a.visitDueOn}.`,
        kind: 'service',
        contact: { name: '', phone: customer.phone },
        orderNumber: '',
        priceLevelId: customer.priceLevelId,
        currency: ctx.company.currency,
        now: ctx.now,
        details: detailsOf(customer, site),
        answers: [],
        equipmentId: null,
        printedNote: customer.printedNote,
        assignedTo: null,
        source: '',
      })
      await insertVisit(ctx.tx, {
        id: item.visitId,
        workOrderId: item.workOrderId,
        technicianId: null,
        startAt: null,
        durationSeconds: plan?.visitSeconds ?? 3600,
        promiseDate: null,
        promiseFrom: null,
        promiseTo: null,
      })
      await setVisitDue(
        ctx.tx,
        a.id,
        plan ? nextVisitDue(a.visitDueOn, plan.visitsAYear, a.endsOn) : null,
      )
      await record(ctx, {
        subject: 'work',
        id: item.workOrderId,
        workOrderId: item.workOrderId,
        customerId: customer.id,
        fact: workFacts.madeForAgreement({ number, plan: a.plan, dueOn: a.visitDueOn! }),
      })
      await refreshWorkOrder(ctx, item.workOrderId)
      made.push({ agreementId: a.id, number })
    }
  }
  return { made, skipped }
}
export const listPlans = async (ctx: Ctx): Promise<Answer<'plans'>> => ({
  items: (await allPlans(ctx.tx)).map((p) => ({
    id: p.id,
    name: p.name,
    visitsAYear: p.visitsAYear,
    price: p.price,
    work: p.work,
  })),
})
export async function addPlan(ctx: Ctx, body: Body<'newPlan'>): Promise<Answer<'newPlan'>> {
  const level = (await levels(ctx.tx)).find((l) => l.kind === 'agreement')
  await insertPlan(ctx.tx, {
    id: body.id,
    name: body.name,
    visitsAYear: body.visitsAYear,
    price: body.price,
    levelId: level?.id ?? null,
    work: body.work,
  })
  const fact = agreementFacts.planAdded({ plan: body.name })
  await record(ctx, { subject: 'settings', id: body.id, fact })
  return { id: body.id }
}
