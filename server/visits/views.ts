// What screens are told of a work order.
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { priceText } from '../../core/money/priceText'
import { roundToMinor } from '../../core/money/roundToMinor'
import { documentTotals } from '../../core/documents/documentTotals'
import { dueDate, termsInWords } from '../../core/documents/dueDate'
import { margin } from '../../core/documents/margin'
import { changedDetails } from '../../core/customers/changedDetails'
import { quoteState } from '../../core/quotes/quoteState'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { invoiceState } from '../../core/invoices/invoiceState'
import { isExempt } from '../../core/tax/isExempt'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { historyOf } from '../http/queries'
import { levelAmong } from '../pricebook/priceLines'
import { aroundWork, workWithParties } from './around.queries'
import { detailsOf } from './details'
import { linesOf } from './lines.queries'
import { chargeFrom, currentPricing, uncoveredAmong } from './uncovered'
import { mayHave, accountFrom, asPaperLine, partialLine } from './account'

export async function workOrderPaper(ctx: Ctx, id: string): Promise<Answer<'workOrder'>> {
  const { tx, company } = ctx
  const actor = signedIn(ctx)
  const parties = await workWithParties(tx, id)
  if (!parties || !(await mayHave(ctx, id))) throw notFound('work order')
  const { work, customer, site, equipment: thing, callbackOf } = parties
  const m = (minor: number) => toMoney(minor, work.currency)
  const lines = await linesOf(tx, id)
  const { visits, clock: intervals, ...around } = await aroundWork(tx, id, ctx.now)
  const account = accountFrom(lines, around.billed)
  const { at, ...time } = uncoveredAmong(ctx, work, { lines, visits, clock: intervals })
  const pricing = await currentPricing(ctx, at)
  const { classes } = pricing
  const { level: offered, own: ownLevel } = levelAmong(pricing.levels, work.priceLevelId)
  const exempt = isExempt(customer, ctx.today)
  const options = { mode: company.taxMode, currency: work.currency, exempt }
  const totals = documentTotals(
    lines.map((l) => asPaperLine(l, classes)),
    options,
  )
  const toBill = account.lines
    .filter((l) => l.unbilledMinor > 0)
    .map((l) => ({ account: l, line: lines.find((x) => x.id === l.id)! }))
  const bill = documentTotals(
    toBill.map(({ account: a, line }) =>
      a.billedMinor === 0
        ? asPaperLine(line, classes)
        : partialLine(a.unbilledMinor, line, classes, work.currency),
    ),
    options,
  )
  const backs = around.callBacks.map((b) => ({
    ...b,
    costMinor: roundToMinor(new Decimal(b.material).plus(b.labour), work.currency),
  }))
  // What had to be done again costs the work that it was done for.
  const cost =
    lines.reduce(
      (sum, l) => sum + roundToMinor(new Decimal(l.unitCost).times(l.quantity), work.currency),
      0,
    ) + backs.reduce((sum, b) => sum + b.costMinor, 0)
  const charge = chargeFrom(ctx, work, customer.ownPrices, pricing, time.uncoveredSeconds, at)
  const rates = pricing.entries.map((e) => ({
    entryId: e.id,
    name: e.name,
    book: priceText(e.price),
    customer: customer.ownPrices[e.id] ?? null,
    workOrder: work.ownPrices[e.id] ?? null,
  }))
  const seesCost = actor.seesCost
  const fields = pricing.fields.filter(
    (f) => f.subject === 'work_order' && (!f.retired || work.custom[f.id]),
  )
  const missing = [
    ...lines
      .filter((l) => l.done && l.netMinor === 0 && !work.callbackOf)
      .map((l) => `“${l.name}” has no price`),
    ...lines.filter((l) => !l.done).map((l) => `“${l.name}” was promised and is not marked done`),
    ...(customer.email ? [] : ['this customer has no mail address']),
  ]
  return {
    callBacks: backs.map((b) => ({
      id: b.id,
      number: b.number,
      kind: b.kind,
      state: b.state,
      siteSeconds: b.siteSeconds,
      cost: seesCost ? m(b.costMinor) : null,
    })),
    callbackOf,
    followUp: work.followUp,
    followUpOn: work.followUpOn,
    id,
    version: work.version,
    number: work.number,
    title: work.title,
    problem: work.problem,
    kind: work.kind,
    state: work.state,
    orderNumber: work.orderNumber,
    currency: work.currency,
    createdAt: work.createdAt,
    customer: {
      id: customer.id,
      name: customer.name,
      phone: customer.phone,
      email: customer.email,
      email2: customer.email2,
      exempt,
      level: ownLevel ? offered!.name : '',
      terms: termsInWords(customer.terms ?? company.terms),
      stopWork: customer.stopWork,
      officeNote: customer.officeNote,
      address: [customer.line1, customer.town, customer.postcode].filter(Boolean).join(', '),
      tags: customer.tags,
    },
    site: {
      id: site.id,
      name: site.name,
      line1: site.line1,
      town: site.town,
      accessNote: site.accessNote,
    },
    contact: work.contact,
    printedNote: work.printedNote,
    equipment: thing ? [thing.make, thing.category, thing.serial].filter(Boolean).join(' ') : '',
    changedDetails: changedDetails(work.details, detailsOf(customer, site)),
    answers: work.answers.map(({ question, answer }) => ({ question, answer })),
    fields: fields.map((f) => ({
      id: f.id,
      name: f.name,
      kind: f.kind,
      choices: f.choices,
      value: work.custom[f.id] ?? '',
    })),
    visits: visits.map((v) => {
      const own = intervals.filter((i) => i.visitId === v.id)
      const s = workedSeconds(
        own.filter((i) => i.personId === v.technicianId),
        ctx.now,
      )
      const along = [
        ...new Map(
          own.filter((i) => i.personId !== v.technicianId).map((i) => [i.personId, i.person]),
        ),
      ].map(([id, name]) => ({
        name,
        seconds: workedSeconds(
          own.filter((i) => i.personId === id),
          ctx.now,
        ).on_site,
      }))
      return {
        along,
        id: v.id,
        version: v.version,
        technicianId: v.technicianId,
        technician: v.technician ?? '',
        startAt: v.startAt,
        state: v.state,
        driveSeconds: s.drive,
        siteSeconds: s.on_site,
        startedAt: v.startedAt,
        finishedAt: v.finishedAt,
        promise: v.promiseFrom ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
        findings: v.findings,
      }
    }),
    lines: lines.map((l) => {
      const a = account.lines.find((x) => x.id === l.id)!
      return {
        id: l.id,
        version: l.version,
        kind: l.kind,
        name: l.name,
        unit: l.unit,
        quantity: new Decimal(l.quantity).toString(),
        unitPrice: priceText(l.unitPrice),
        bookPrice: l.bookPrice === null ? null : priceText(l.bookPrice),
        unitCost: seesCost ? priceText(l.unitCost) : null,
        priceFrom: l.priceFrom,
        supplier: l.supplier,
        partNumber: l.partNumber,
        discount: m(l.discountMinor),
        done: l.done,
        net: m(l.netMinor),
        saving: m(l.savingMinor),
        taxClass: l.taxClass,
        coversSeconds: l.coversSeconds,
        visitId: l.visitId,
        promised: m(a.promisedMinor),
        doneAmount: m(a.doneMinor),
        billed: m(a.billedMinor),
        paid: m(a.paidMinor),
        toBill: m(a.unbilledMinor),
        unpaid: m(a.unpaidMinor),
      }
    }),
    totals: {
      promised: m(account.promisedMinor),
      done: m(account.doneMinor),
      billed: m(account.billedMinor),
      paid: m(account.paidMinor),
      beyondPromise: m(account.beyondPromiseMinor),
      toBill: m(account.toBillMinor),
      unpaid: m(account.unpaidMinor),
    },
    price: {
      net: m(totals.netMinor),
      taxes: totals.taxes.map((t) => ({ name: t.name, rate: t.rate, tax: m(t.taxMinor) })),
      tax: m(totals.taxMinor),
      total: m(totals.totalMinor),
      saving: m(lines.reduce((sum, l) => sum + l.savingMinor, 0)),
      savingLevel: offered?.name ?? '',
      cost: seesCost ? m(cost) : null,
      margin: seesCost ? margin(totals.netMinor, cost) : null,
    },
    bill: {
      net: m(bill.netMinor),
      tax: m(bill.taxMinor),
      total: m(bill.totalMinor),
      issueOn: ctx.today,
      dueOn: dueDate(ctx.today, customer.terms ?? company.terms),
      missing,
    },
    time: { ...time, charge: m(charge?.netMinor ?? 0) },
    rates,
    invoices: around.invoices.map((i) => ({
      id: i.id,
      number: i.number,
      issueOn: i.issueOn,
      dueOn: i.dueOn,
      total: m(i.total),
      open: m(i.open),
      state: invoiceState(i),
    })),
    quotes: around.quotes.map((q) => ({
      id: q.id,
      number: q.number,
      state: quoteState(q, ctx.today),
      total: m(q.total),
    })),
    source: work.source,
    signatures: around.signatures.map((s) => ({ ...s, total: m(s.total) })),
    photos: around.photos,
    history: await historyOf(ctx, 'work_order_id', [id]),
  }
}
