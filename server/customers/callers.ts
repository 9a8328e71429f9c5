// Who is calling: found by number, name and place, and what they are.
import { saySite } from '../../core/customers/saySite'
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { sayMoney } from '../../core/money/sayMoney'
import { likeness, PERHAPS_THE_SAME } from '../../core/customers/likeness'
import { plusDays } from '../../core/time/zone'
import { phoneKey } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { withStates } from '../agreements/queries'
import { findCustomers, matchDocs, siteMeant, whyFound } from './matching'
import { aroundCustomer } from './around.queries'
import { customerById, customersById, type CustomerRow } from './queries'
import { lastWorkOf, openWorkOf } from './history.queries'
import { owedBy, type Owed } from './owed.queries'
import { sitesOf, type SiteRow } from './places.queries'
import type { Caller, CustomerPaper } from './shapes'
import {
  equipmentShape,
  siteShapes,
  exemption,
  quoteShapes,
  NOTHING_OWED,
  lateBy,
  suppliedOf,
} from './shapes'

function placeSaid(c: CustomerRow, own: readonly SiteRow[], site: SiteRow | undefined): string {
  if (site) return saySite(site)
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
const isDueSoon = (ctx: Ctx, e: CustomerPaper['equipment'][number]) =>
  e.nextServiceOn && e.nextServiceOn <= plusDays(ctx.today, 30)
/** What of a customer's money matters before somebody goes there. */
function moneyNotes(ctx: Ctx, c: CustomerRow, debt: Owed): (string | false)[] {
  const m = (minor: number) => sayMoney(toMoney(minor, ctx.company.currency), ctx.company.locale)
  const late = lateBy(debt, ctx.today)
  const open = debt.owed + debt.credits
  const of = debt.over60 === open ? '' : ` of the ${m(open)} that is open`
  return [
    late > 60 && `Unpaid for ${late} days: ${m(debt.over60)}${of}`,
    c.creditLimit !== null &&
      debt.owed > c.creditLimit &&
      `Owes ${m(debt.owed)}, over the limit of ${m(c.creditLimit)}`,
    debt.credits > 0 && `A credit of ${m(debt.credits)} is not applied yet`,
  ]
}
/** What matters at the next visit, the most pressing first. */
export function notesFor(
  ctx: Ctx,
  c: CustomerRow,
  debt: Owed,
  around: Pick<CustomerPaper, 'agreements' | 'equipment' | 'sites'>,
): string[] {
  return [
    c.stopWork && `Stop work: ${c.stopWork}`,
    ...moneyNotes(ctx, c, debt),
    c.officeNote,
    ...around.sites.filter((s) => s.accessNote).map((s) => `${s.name || s.line1}: ${s.accessNote}`),
    ...around.agreements
      .filter((a) => a.state !== 'in force')
      .map((a) => `Agreement ${a.plan}: ${a.state}`),
    ...around.equipment
      .filter((e) => isDueSoon(ctx, e))
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
    notes: notesFor(ctx, c, debt, { agreements, equipment, sites }),
    supplied: around.supplied.map(suppliedOf(ctx)),
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
