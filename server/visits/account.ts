// The account of a work order: four columns, price, what would be billed, minutes that no line covers; and its state, which follows.
import { notFound } from '../../core/errors/LedgerError'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { priceText } from '../../core/money/priceText'
import { roundToMinor } from '../../core/money/roundToMinor'
import { documentTotals } from '../../core/documents/documentTotals'
import { dueDate, termsInWords } from '../../core/documents/dueDate'
import { margin } from '../../core/documents/margin'
import { paidByLine } from '../../core/costing/paidByLine'
import { changedDetails } from '../../core/customers/changedDetails'
import { uncoveredSeconds } from '../../core/costing/uncoveredSeconds'
import { workOrderAccount, type Account } from '../../core/costing/workOrderAccount'
import { quoteState } from '../../core/quotes/quoteState'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { roundDuration } from '../../core/hours/roundDuration'
import { invoiceState } from '../../core/invoices/invoiceState'
import { workOrderState } from '../../core/visits/workOrderState'
import { isExempt } from '../../core/tax/isExempt'
import type { TaxRate } from '../../core/tax/taxTotals'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { historyOf } from '../http/queries'
import { applyDue } from '../pricebook/changes'
import { pricingFacts } from '../pricebook/facts.queries'
import { levelAmong, pricedBy, priceLines, type PricedLine } from '../pricebook/priceLines'
import { standardLabour, type EntryRow } from '../pricebook/queries'
import { daysAt, factorOf } from '../pricebook/rules'
import { quotesOfWork } from '../quotes/queries'
import { aroundWork, workWithParties } from './around.queries'
import { detailsOf } from './details'
import {
  billedLines,
  intervalsOf,
  invoicesOfWork,
  linesOf,
  mayTechnicianSee,
  setWorkOrderFacts,
  visitsOfWork,
  workOrderById,
  type BilledLine,
  type IntervalRow,
  type LineRow,
  type VisitRow,
  type WorkOrderRow,
} from './queries'

/** A work order that the asker may see; a technician only those with a visit of their own. */
export async function visibleWorkOrder(ctx: Ctx, id: string, lock = false): Promise<WorkOrderRow> {
  const work = await workOrderById(ctx.tx, id, lock)
  if (!work || !(await mayHave(ctx, id))) throw notFound('work order')
  return work
}
const mayHave = async ({ tx, actor }: Ctx, id: string): Promise<boolean> =>
  actor?.role !== 'technician' || mayTechnicianSee(tx, actor.id, id)

type WholeAccount = Account & { billedElsewhere: number }
export const accountOf = async (
  ctx: Ctx,
  lines: LineRow[],
  workOrderId: string,
): Promise<WholeAccount> => accountFrom(lines, await billedLines(ctx.tx, workOrderId))
function accountFrom(lines: LineRow[], rows: BilledLine[]): WholeAccount {
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

/** The charge for seconds that no line covers: standard labour to the next tenth of an hour, priced as any line of that visit is. */
export async function timeCharge(
  ctx: Ctx,
  work: WorkOrderRow,
  seconds: number,
  at: number | null,
): Promise<PricedLine | null> {
  const labour = seconds > 0 ? await standardLabour(ctx.tx) : null
  return labour && (await priceLines(ctx, work, [chargeLine(ctx, labour, seconds)], false, at))[0]!
}
const chargeLine = (ctx: Ctx, labour: EntryRow, seconds: number) => ({
  id: ctx.id(),
  entryId: labour.id,
  quantity: new Decimal(
    roundDuration(seconds, { kind: 'nearest', stepSeconds: 360, minimumSeconds: 360 }),
  )
    .div(3600)
    .toDecimalPlaces(3)
    .toString(),
})
/** The same charge, from what was read already. */
function chargeFrom(
  ctx: Ctx,
  work: WorkOrderRow,
  agreed: Record<string, string>,
  facts: PricingFacts,
  seconds: number,
  at: number | null,
): PricedLine | null {
  const rates = facts.entries.filter((e) => e.kind === 'labour')
  const [labour] = rates
  if (seconds <= 0 || !labour) return null
  return pricedBy(
    {
      entries: new Map(rates.map((e) => [e.id, e])),
      level: levelAmong(facts.levels, work.priceLevelId),
      agreed,
      time: at === null ? null : factorOf(ctx, at, facts.times, facts.holidays),
      rates: new Map(rates.map((e) => [e.id, e.price])),
    },
    work,
    [chargeLine(ctx, labour, seconds)],
    false,
  )[0]!
}
type PricingFacts = Awaited<ReturnType<typeof pricingFacts>>
/** What prices follow, with the changes made whose day has come. */
async function currentPricing(ctx: Ctx, at: number | null): Promise<PricingFacts> {
  const read = () => pricingFacts(ctx.tx, ctx.today, daysAt(ctx, at ?? ctx.now))
  const facts = await read()
  if (!facts.due) return facts
  await applyDue(ctx)
  return read()
}

export async function uncoveredOf(ctx: Ctx, work: WorkOrderRow, lines: LineRow[]) {
  const visits = await visitsOfWork(ctx.tx, work.id)
  const clock = await intervalsOf(
    ctx.tx,
    visits.map((v) => v.id),
  )
  return uncoveredAmong(ctx, work, { lines, visits, clock })
}
function uncoveredAmong(
  ctx: Ctx,
  work: WorkOrderRow,
  { lines, visits, clock }: { lines: LineRow[]; visits: VisitRow[]; clock: IntervalRow[] },
) {
  // An apprentice learns: their hours cost, and are not asked to be charged (common practice of the trade).
  const seconds = workedSeconds(
    clock.filter((i) => i.personKind !== 'apprentice'),
    ctx.now,
  )
  const covered = lines.filter((l) => l.done).reduce((sum, l) => sum + l.coversSeconds, 0)
  // Which visit the minutes belong to, no line says: they are charged as those of the last one.
  const last = visits
    .filter((v) => v.state === 'finished')
    .map((v) => v.startedAt ?? v.startAt)
    .filter((s) => s !== null)
    .sort()
    .at(-1)
  return {
    at: last ? Date.parse(last) : null,
    siteSeconds: seconds.on_site,
    coveredSeconds: covered,
    explainedSeconds: work.explainedSeconds,
    uncoveredSeconds:
      last && !work.callbackOf
        ? uncoveredSeconds({ worked: seconds.on_site, covered, explained: work.explainedSeconds })
        : 0,
  }
}

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
