// Customers: who is calling and what to know of them, the customer's page, new ones and changes.
import { customerFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, toMoney } from '../../core/money/formatMinor'
import { sayMoney } from '../../core/money/sayMoney'
import { quoteState } from '../../core/quotes/quoteState'
import { whyQuoteWaits } from '../../core/quotes/whyQuoteWaits'
import { paidNet } from '../../core/costing/paidNet'
import { daysLate } from '../../core/collections/ageing'
import { likeness, PERHAPS_THE_SAME } from '../../core/customers/likeness'
import { territoryOf } from '../../core/customers/territoryOf'
import { termsInWords, type Terms } from '../../core/documents/dueDate'
import { invoiceState } from '../../core/invoices/invoiceState'
import { sayDay } from '../../core/time/sayDay'
import { localDate, plusDays } from '../../core/time/zone'
import { formatPhone, phoneKey } from '../../core/text/phone'
import { digits, searchKey } from '../../core/text/searchKey'
import type { Answer, Body, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { historyOf, record } from '../http/queries'
import type { ShortQuote } from '../quotes/queries'
import type { TerritoryRow } from '../settings/queries'
import { withStates } from '../agreements/queries'
import { checkFields } from '../settings/fields'
import { customersChanged, findCustomers, matchDocs, siteMeant, whyFound } from './matching'
import { aroundCustomer } from './around.queries'
import {
  customerById,
  customerPage,
  customersById,
  insertCustomer,
  insertSite,
  lastWorkOf,
  middleOf,
  openWorkOf,
  owedBy,
  sitesOf,
  updateRow,
  type Owed,
  type CustomerRow,
  type EquipmentRow,
  type SiteRow,
} from './queries'

export type Caller = Answer<'caller'>
export type CustomerPaper = Answer<'customer'>
export const customerSearch = (c: {
  name: string
  phone: string
  phone2?: string
  email: string
  email2: string
  line1: string
  town: string
  postcode: string
  tags?: string[]
  custom?: Record<string, string>
}) =>
  `${searchKey([c.name, c.email, c.email2, c.line1, c.town, c.postcode, ...(c.tags ?? []), ...Object.values(c.custom ?? {})].join(' '))} ${digits(c.phone)} ${digits(c.phone2 ?? '')}`
export const siteSearch = (s: {
  name: string
  line1: string
  town: string
  postcode: string
  custom?: Record<string, string>
}) => searchKey([s.name, s.line1, s.town, s.postcode, ...Object.values(s.custom ?? {})].join(' '))

function placeSaid(c: CustomerRow, own: readonly SiteRow[], site: SiteRow | undefined): string {
  if (site) return [site.name, site.line1, site.town].filter(Boolean).join(', ')
  if (own.length > 1) return `${own.length} sites`
  return [c.line1, c.town].filter(Boolean).join(', ')
}
/** Customers that the typed words could mean, best first, with why. */
export async function findMatches(ctx: Ctx, q: string): Promise<Answer<'matches'>> {
  const found = await findCustomers(ctx, q, 8)
  const ids = found.map((f) => f.id)
  if (ids.length === 0) return { items: [] }
  const [customers, sites, owed, work] = [
    await customersById(ctx.tx, ids),
    await sitesOf(ctx.tx, ids),
    await owedBy(ctx.tx, ids, ctx.today),
    await openWorkOf(ctx.tx, ids),
  ]
  return {
    items: found.flatMap((f) => {
      const c = customers.find((x) => x.id === f.id)
      if (!c) return []
      const own = sites.filter((s) => s.customerId === c.id)
      const siteId = siteMeant(own, f)
      const site = own.find((s) => s.id === siteId)
      const debt = owed.find((o) => o.customerId === c.id) ?? NOTHING_OWED
      return [
        {
          customerId: c.id,
          siteId,
          name: c.name,
          phone: c.phone,
          prospect: c.prospect,
          stopWork: c.stopWork,
          why: whyFound(q, f),
          place: placeSaid(c, own, site),
          owed: toMoney(debt.owed, ctx.company.currency),
          late: lateBy(debt, ctx.today),
          open: work.filter((w) => w.customerId === c.id).length,
        },
      ]
    }),
  }
}

function warranty({ warrantyUntil: until }: EquipmentRow, { today, company }: Ctx): string {
  if (!until) return ''
  return until >= today
    ? `in warranty until ${sayDay(until, company.locale, 'withYear')}`
    : 'out of warranty'
}
export const equipmentShape =
  (ctx: Ctx) =>
  (e: EquipmentRow): CustomerPaper['equipment'][number] => ({
    id: e.id,
    version: e.version,
    siteId: e.siteId,
    category: e.category,
    make: e.make,
    serial: e.serial,
    installedOn: e.installedOn,
    warrantyUntil: e.warrantyUntil,
    nextServiceOn: e.nextServiceOn,
    note: e.note,
    state: [
      warranty(e, ctx),
      e.nextServiceOn
        ? `service ${e.nextServiceOn < ctx.today ? 'was due' : 'due'} ${sayDay(e.nextServiceOn, ctx.company.locale, 'withYear')}`
        : '',
    ]
      .filter(Boolean)
      .join(', '),
  })
function siteShapes(rows: SiteRow[], areas: readonly TerritoryRow[]): CustomerPaper['sites'] {
  return rows.map(({ customerId: _customer, ...s }) => ({
    ...s,
    territory: territoryOf(s.postcode, areas)?.name ?? '',
  }))
}
/** The exemption that holds today, in words; an expired certificate is said, because tax is charged again. */
export const exemption = (
  { today, company }: Ctx,
  c: Pick<CustomerRow, 'taxExempt' | 'certificate' | 'exemptUntil'>,
): string => {
  if (!c.taxExempt) return ''
  if (c.exemptUntil && c.exemptUntil < today)
    return `certificate ${c.certificate} ran out on ${sayDay(c.exemptUntil, company.locale, 'withYear')}: tax is charged`
  const certificate = c.certificate && `certificate ${c.certificate}`
  const until = c.exemptUntil && `until ${sayDay(c.exemptUntil, company.locale, 'withYear')}`
  return ['exempt', certificate, until].filter(Boolean).join(', ')
}

/** Quotes that a customer pays for or that are for their sites, with why each waits. */
const quoteShapes = (ctx: Ctx, quotes: readonly ShortQuote[]): CustomerPaper['quotes'] =>
  quotes.map((q) => ({
    id: q.id,
    number: q.number,
    title: q.title,
    state: quoteState(q, ctx.today),
    total: toMoney(q.total, ctx.company.currency),
    waiting: whyQuoteWaits(
      {
        state: q.state,
        expiresOn: q.expiresOn,
        createdOn: localDate(Date.parse(q.createdAt), ctx.company.timeZone),
        sentOn: q.sentAt && localDate(Date.parse(q.sentAt), ctx.company.timeZone),
      },
      ctx.today,
    ).text,
  }))
const NOTHING_OWED = { customerId: '', owed: 0, credits: 0, over60: 0, oldest: null }
const lateBy = (debt: Owed, today: string) => (debt.oldest ? daysLate(debt.oldest, today) : 0)
/** What matters at the next visit, the most pressing first. */
function notesFor(
  ctx: Ctx,
  c: CustomerRow,
  debt: Owed,
  agreements: CustomerPaper['agreements'],
  equipment: CustomerPaper['equipment'],
  sites: CustomerPaper['sites'],
): string[] {
  const m = (minor: number) => sayMoney(toMoney(minor, ctx.company.currency), ctx.company.locale)
  const late = lateBy(debt, ctx.today)
  const open = debt.owed + debt.credits
  return [
    c.stopWork && `Stop work: ${c.stopWork}`,
    late > 60 &&
      `Unpaid for ${late} days: ${m(debt.over60)}${debt.over60 === open ? '' : ` of the ${m(open)} that is open`}`,
    c.creditLimit !== null &&
      debt.owed > c.creditLimit &&
      `Owes ${m(debt.owed)}, over the limit of ${m(c.creditLimit)}`,
    debt.credits > 0 && `A credit of ${m(debt.credits)} is not applied yet`,
    c.officeNote,
    ...sites.filter((s) => s.accessNote).map((s) => `${s.name || s.line1}: ${s.accessNote}`),
    ...agreements
      .filter((a) => a.state !== 'in force')
      .map((a) => `Agreement ${a.plan}: ${a.state}`),
    ...equipment
      .filter((e) => e.nextServiceOn && e.nextServiceOn <= plusDays(ctx.today, 30))
      .map((e) => `${e.make} ${e.category}: ${e.state}`),
  ]
    .filter(Boolean)
    .map((n) => String(n).slice(0, 290))
    .slice(0, 8)
}

export async function callerOf(ctx: Ctx, id: string): Promise<Caller> {
  const c = await customerById(ctx.tx, id)
  if (!c) throw notFound('customer')
  if (c.mergedInto) return callerOf(ctx, c.mergedInto)
  const { tx, today, company } = ctx
  const around = await aroundCustomer(tx, id, [], today)
  const [debt = NOTHING_OWED] = around.owed
  const { owed } = debt
  const equipment = around.equipment.map(equipmentShape(ctx))
  const agreements = withStates(around.agreements, today)
  const sites = siteShapes(around.sites, around.territories)
  const level = around.levels.find((l) => l.id === c.priceLevelId)
  const work = ({ customerId: _customer, ...w }: Awaited<ReturnType<typeof openWorkOf>>[number]) =>
    w
  return {
    customerId: id,
    version: c.version,
    name: c.name,
    phone: c.phone,
    phone2: c.phone2,
    email: c.email,
    prospect: c.prospect,
    tags: c.tags,
    owed: toMoney(owed, company.currency),
    credits: toMoney(debt.credits, company.currency),
    late: lateBy(debt, today),
    creditLimit: c.creditLimit === null ? null : toMoney(c.creditLimit, company.currency),
    overLimit: c.creditLimit !== null && owed > c.creditLimit,
    stopWork: c.stopWork,
    officeNote: c.officeNote,
    exempt: exemption(ctx, c),
    level: level?.name ?? '',
    hasAgreementLevel: level?.kind === 'agreement',
    ownPrices: Object.entries(c.ownPrices).map(([entryId, price]) => ({ entryId, price })),
    agreements,
    equipment,
    sites,
    contacts: around.contacts.map(({ customerId: _customer, ...k }) => k),
    quotes: quoteShapes(ctx, around.quotes).filter((q) =>
      ['draft', 'sent', 'expired'].includes(q.state),
    ),
    openWork: (await openWorkOf(tx, [id])).slice(0, 8).map(work),
    lastWork: (await lastWorkOf(tx, id)).map(work),
    notes: notesFor(ctx, c, debt, agreements, equipment, sites),
    supplied: around.supplied,
  }
}

/** Customers that are perhaps the one being typed, so that nobody is entered twice. */
export async function alikeTo(ctx: Ctx, body: Body<'alike'>): Promise<Answer<'alike'>> {
  const asked = [
    body.phone && phoneKey(body.phone, ctx.company.country),
    body.email,
    body.name,
    body.line1,
  ].filter((q): q is string => Boolean(q && q.length > 2))
  const ids = new Set<string>()
  for (const q of asked) for (const f of await findCustomers(ctx, q, 6)) ids.add(f.id)
  const typed = {
    id: '',
    name: body.name,
    phones: body.phone ? [phoneKey(body.phone, ctx.company.country)] : [],
    mails: body.email ? [body.email] : [],
    places: body.line1 ? [body.line1] : [],
  }
  const docs = await matchDocs(ctx, [...ids])
  const rows = new Map((await customersById(ctx.tx, [...ids])).map((c) => [c.id, c]))
  const sites = await sitesOf(ctx.tx, [...ids])
  return {
    items: docs
      .flatMap((d) => {
        const c = rows.get(d.id)!
        const alike = likeness(typed, {
          ...d,
          places: [c.line1, ...sites.filter((s) => s.customerId === d.id).map((s) => s.line1)],
        })
        return alike.score >= PERHAPS_THE_SAME - 0.15
          ? [
              {
                customerId: c.id,
                name: c.name,
                phone: c.phone,
                place: [c.line1, c.town].filter(Boolean).join(', '),
                ...alike,
              },
            ]
          : []
      })
      .sort((a, b) => b.score - a.score)
      .slice(0, 4),
  }
}

export async function addCustomer(ctx: Ctx, body: Body<'newCustomer'>): Promise<Caller> {
  const { tx, company } = ctx
  const c = {
    ...body,
    phone: formatPhone(body.phone, company.country),
    phone2: formatPhone(body.phone2, company.country),
  }
  await insertCustomer(tx, { ...c, search: customerSearch(c), now: ctx.now })
  const middle = await middleOf(tx, body.town, body.postcode)
  const site = { name: '', line1: body.line1, town: body.town, postcode: body.postcode }
  await insertSite(tx, {
    ...site,
    id: body.siteId,
    customerId: body.id,
    lat: middle?.lat ?? null,
    lon: middle?.lon ?? null,
    accessNote: '',
    search: siteSearch(site),
  })
  await record(ctx, {
    subject: 'customer',
    id: body.id,
    customerId: body.id,
    fact: customerFacts.entered({
      name: body.name,
      prospect: body.prospect,
      source: body.source,
    }),
  })
  customersChanged(ctx, [body.id])
  return callerOf(ctx, body.id)
}
function nextFor(
  ctx: Ctx,
  { nextVisit, assigned }: { nextVisit: string | null; assigned: string | null },
) {
  if (nextVisit)
    return `visit ${sayDay(nextVisit.slice(0, 10), ctx.company.locale)}${assigned ? `, ${assigned}` : ''}`
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

export async function customerPaper(ctx: Ctx, id: string): Promise<CustomerPaper> {
  const { tx, company, today } = ctx
  const c = await customerById(tx, id)
  if (!c) throw notFound('customer')
  const m = (minor: number) => toMoney(minor, company.currency)
  const around = await aroundCustomer(tx, id, Object.keys(c.ownPrices), today)
  const [[work], [debt = NOTHING_OWED]] = [around.sums, around.owed]
  const { billed: bills, merges } = around
  const equipment = around.equipment.map(equipmentShape(ctx))
  const agreements = withStates(around.agreements, today)
  const sites = siteShapes(around.sites, around.territories)
  return {
    id,
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
    terms: c.terms as CustomerPaper['terms'],
    termsInWords: termsInWords(c.terms ?? company.terms),
    levelId: c.priceLevelId,
    level: around.levels.find((l) => l.id === c.priceLevelId)?.name ?? '',
    exempt: c.taxExempt,
    certificate: c.certificate,
    exemptUntil: c.exemptUntil,
    creditLimit: c.creditLimit === null ? null : m(c.creditLimit),
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
    promised: m(work!.promised),
    done: m(work!.done),
    billed: m(bills.reduce((sum, b) => sum + b.netMinor, 0)),
    paid: m(bills.reduce((sum, b) => sum + paidNet(b), 0)),
    owed: m(debt.owed),
    credits: m(debt.credits),
    notes: notesFor(ctx, c, debt, agreements, equipment, sites),
    sites,
    contacts: around.contacts.map(({ customerId: _customer, ...k }) => k),
    equipment,
    agreements,
    supplied: around.supplied,
    work: around.work.map((w) => ({
      id: w.id,
      number: w.number,
      title: w.title,
      state: w.state,
      on: w.on,
      toBill: m(w.toBill),
    })),
    quotes: quoteShapes(ctx, around.quotes),
    papers: around.papers.map((p) => ({
      id: p.id,
      number: p.number,
      on: p.on,
      total: m(p.total),
      open: m(p.open),
      state: invoiceState(p),
    })),
    files: around.files.map(({ of: _of, ...f }) => f),
    merges: merges.map(({ mergedId: _merged, ...x }) => x),
    history: await historyOf(ctx, 'customer_id', [id, ...merges.map((x) => x.mergedId)]),
  }
}

export async function changeCustomer(
  ctx: Ctx,
  id: string,
  body: Body<'changeCustomer'>,
): Promise<CustomerPaper> {
  const old = await customerById(ctx.tx, id, true)
  if (!old || old.erasedAt) throw notFound('customer')
  const { version, levelId, exempt, creditLimit, ownPrices, terms, ...plain } = body
  if (old.version !== version)
    throw conflict('stale', 'Someone changed this customer in the meantime.', {
      current: await customerPaper(ctx, id),
      yours: body,
    })
  if (terms) checkTerms(terms)
  await checkFields(ctx, 'customer', plain.custom, old.custom)
  // An emptied limit is none; one that was not sent stays.
  const limitOf = (limit: string | null) =>
    limit ? decimalToMinor(limit, ctx.company.currency) : null
  const values: Partial<CustomerRow> = Object.fromEntries(
    Object.entries({
      ...plain,
      phone: plain.phone === undefined ? undefined : formatPhone(plain.phone, ctx.company.country),
      phone2:
        plain.phone2 === undefined ? undefined : formatPhone(plain.phone2, ctx.company.country),
      priceLevelId: levelId,
      taxExempt: exempt,
      terms,
      creditLimit: creditLimit === undefined ? undefined : limitOf(creditLimit),
      ownPrices: ownPrices && Object.fromEntries(ownPrices.map((p) => [p.entryId, p.price])),
      exemptUntil: plain.exemptUntil === '' ? null : plain.exemptUntil,
    }).filter(([, v]) => v !== undefined),
  )
  const changed = Object.keys(values).filter(
    (k) =>
      JSON.stringify(values[k as keyof CustomerRow]) !==
      JSON.stringify(old[k as keyof CustomerRow]),
  )
  await updateRow(ctx.tx, 'customers', id, version, {
    ...values,
    search: customerSearch({ ...old, ...values }),
  })
  await record(ctx, {
    subject: 'customer',
    id,
    customerId: id,
    fact: customerFacts.changed({
      changes: Object.fromEntries(
        changed.map((k) => [
          k,
          { from: old[k as keyof CustomerRow], to: values[k as keyof CustomerRow] },
        ]),
      ),
    }),
  })
  customersChanged(ctx, [id])
  return customerPaper(ctx, id)
}
function checkTerms(terms: {
  kind: string
  days?: number | undefined
  day?: number | undefined
}): asserts terms is Terms {
  if ((terms.kind === 'days' || terms.kind === 'month_end') && terms.days === undefined)
    throw invalid('terms.days', 'Say how many days.')
  if (terms.kind === 'next_month_day' && terms.day === undefined)
    throw invalid('terms.day', 'Say which day of the month.')
}
