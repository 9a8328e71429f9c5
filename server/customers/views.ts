// What screens are told of a customer, and of many.
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { paidNet } from '../../core/costing/paidNet'
import { termsInWords } from '../../core/documents/dueDate'
import { invoiceState } from '../../core/invoices/invoiceState'
import { sayDay } from '../../core/time/sayDay'
import { localDate } from '../../core/time/zone'
import { sayPromise } from '../../core/visits/visitPromise'
import type { Answer, Query } from '../../shared/api'
import { may, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { historyOf } from '../http/queries'
import { withStates } from '../agreements/queries'
import { forecastOf } from '../dispatch/forecast'
import { promiseOf } from '../visits/visits.queries'
import { aroundCustomer } from './around.queries'
import { customerById, customerPage, type CustomerRow } from './queries'
import { owedBy } from './owed.queries'
import { notesFor } from './callers'
import type { CustomerPaper } from './shapes'
import { equipmentShape, siteShapes, quoteShapes, NOTHING_OWED, lateBy, suppliedOf } from './shapes'

function nextFor(
  { company }: Ctx,
  row: { nextVisit: string | null; quote: string | null; assigned: string | null },
) {
  const { nextVisit, quote, assigned } = row
  const on = nextVisit && localDate(Date.parse(nextVisit), company.timeZone)
  const [number, state] = quote?.split(' ') ?? []
  const quoted =
    number && `quote ${number}, ${state === 'draft' ? 'not sent yet' : 'no answer yet'}`
  const what = on ? `visit ${sayDay(on, company.locale)}` : quoted
  if (what) return [what, assigned].filter(Boolean).join(', ')
  return assigned ? `with ${assigned}, no visit yet` : 'nobody has it yet'
}
export async function listCustomers(
  ctx: Ctx,
  query: Query<'customers'>,
): Promise<Answer<'customers'>> {
  const p = paging(query, ['name', 'town'], 'name')
  const { rows, total } = await customerPage(ctx.tx, {
    ...p,
    today: ctx.today,
    q: query.q,
    owing: query.owing === 'yes',
    kind: query.kind,
    tag: query.tag,
  })
  const owed = await owedBy(
    ctx.tx,
    rows.map((r) => r.id),
    ctx.today,
  )
  return pageOf(rows, total, p.limit, (r) => {
    const debt = owed.find((o) => o.customerId === r.id) ?? NOTHING_OWED
    return {
      id: r.id,
      name: r.name,
      phone: r.phone,
      email: r.email,
      town: r.town,
      tags: r.tags,
      sites: r.sites,
      prospect: r.prospect,
      owed: toMoney(debt.owed, ctx.company.currency),
      late: lateBy(debt, ctx.today),
      // A prospect is seen by somebody: who quotes, and when; or it is said that nobody does.
      next: r.prospect ? nextFor(ctx, r) : '',
    }
  })
}
type Around = Awaited<ReturnType<typeof aroundCustomer>>
/** What is kept of the customer alone. */
function ownPart({ company }: Ctx, c: CustomerRow, around: Around) {
  const { terms, creditLimit } = c
  return {
    id: c.id,
    version: c.version,
    name: c.name,
    phone: c.phone,
    phone2: c.phone2,
    email: c.email,
    email2: c.email2,
    line1: c.line1,
    town: c.town,
    postcode: c.postcode,
    prospect: c.prospect,
    source: c.source,
    assignedTo: c.assignedTo,
    terms: terms as CustomerPaper['terms'],
    termsInWords: termsInWords(terms ?? company.terms),
    levelId: c.priceLevelId,
    level: around.levels.find((l) => l.id === c.priceLevelId)?.name ?? '',
    quoteLayoutId: c.quoteLayoutId,
    invoiceLayoutId: c.invoiceLayoutId,
    exempt: c.taxExempt,
    certificate: c.certificate,
    exemptUntil: c.exemptUntil,
    creditLimit: creditLimit === null ? null : toMoney(creditLimit, company.currency),
    officeNote: c.officeNote,
    printedNote: c.printedNote,
    tags: c.tags,
    stopWork: c.stopWork,
    mailConsent: c.mailConsent,
    textConsent: c.textConsent,
    custom: c.custom,
    mergedInto: c.mergedInto,
    erased: c.erasedAt !== null,
    ownPrices: around.priced.map((e) => ({
      entryId: e.id,
      name: e.name,
      price: c.ownPrices[e.id]!,
      bookPrice: e.price,
    })),
  }
}
/** The four columns of everything that was ever done for them, and what is open. */
function sumsPart({ company }: Ctx, { sums, owed, billed }: Around) {
  const m = (minor: number) => toMoney(minor, company.currency)
  const [work] = sums
  const [debt = NOTHING_OWED] = owed
  return {
    promised: m(work!.promised),
    done: m(work!.done),
    billed: m(billed.reduce((sum, b) => sum + b.netMinor, 0)),
    paid: m(billed.reduce((sum, b) => sum + paidNet(b), 0)),
    owed: m(debt.owed),
    credits: m(debt.credits),
  }
}
/** Work, quotes, invoices and payments, as the customer's page lists them. */
function papersPart(ctx: Ctx, { work, quotes, papers, payments }: Around) {
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  return {
    work: work.map((w) => ({
      id: w.id,
      number: w.number,
      title: w.title,
      state: w.state,
      on: w.on,
      toBill: m(w.toBill),
    })),
    quotes: quoteShapes(ctx, quotes),
    papers: papers.map((p) => ({
      id: p.id,
      number: p.number,
      on: p.on,
      total: m(p.total),
      open: m(p.open),
      state: invoiceState(p),
    })),
    payments: (may(ctx, 'payments.see') ? payments : []).map(
      ({ amount, left, backReason, invoices, ...p }) => ({
        ...p,
        ...{ amount: m(amount), left: m(left), takenBack: backReason, invoices: invoices ?? '' },
      }),
    ),
  }
}
/** What comes next, with when somebody is to be expected: of today as the day runs, else as it is planned. */
async function comingPart(ctx: Ctx, { coming }: Around): Promise<CustomerPaper['coming']> {
  const { timeZone, locale } = ctx.company
  const dayOf = (v: { startAt: string | null }) =>
    v.startAt && localDate(Date.parse(v.startAt), timeZone)
  const today = [
    ...new Set(coming.filter((v) => dayOf(v) === ctx.today).map((v) => v.technicianId)),
  ]
  const days = await Promise.all(today.map((person) => forecastOf(ctx, person, ctx.today)))
  const arrival = (id: string) => days.flatMap((day) => day.get(id)?.arriveAt ?? [])[0]
  return coming.map((v) => {
    const at = dayOf(v) === ctx.today ? arrival(v.id) : undefined
    const { id, workOrderId, number, title, state, startAt, technician } = v
    const promise = promiseOf(v)
    return {
      ...{ id, workOrderId, number, title, state, startAt, technician: technician ?? '' },
      arriveAt: at === undefined ? null : new Date(at).toISOString(),
      promise: promise ? sayPromise(promise, (date) => sayDay(date, locale)) : '',
    }
  })
}
export async function customerPaper(ctx: Ctx, id: string): Promise<CustomerPaper> {
  const { tx, today } = ctx
  const c = await customerById(tx, id)
  if (!c) throw notFound('customer')
  const around = await aroundCustomer(tx, id, Object.keys(c.ownPrices), today)
  const [debt = NOTHING_OWED] = around.owed
  const places = {
    sites: siteShapes(around.sites, around.territories),
    equipment: around.equipment.map(equipmentShape(ctx)),
    agreements: withStates(around.agreements, today),
  }
  const { merges } = around
  return {
    ...ownPart(ctx, c, around),
    ...sumsPart(ctx, around),
    notes: notesFor(ctx, c, debt, places),
    ...places,
    contacts: around.contacts.map(({ customerId: _customer, ...k }) => k),
    supplied: around.supplied.map(suppliedOf(ctx)),
    ...papersPart(ctx, around),
    coming: await comingPart(ctx, around),
    files: around.files.map(({ of: _of, ...f }) => f),
    merges: merges.map(({ mergedId: _merged, ...x }) => x),
    history: await historyOf(ctx, 'customer_id', [id, ...merges.map((x) => x.mergedId)]),
  }
}
