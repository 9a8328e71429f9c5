// How a customer and what is theirs is shaped for screens.
import { toMoney } from '../../core/money/formatMinor'
import { quoteState } from '../../core/quotes/quoteState'
import { daysLate } from '../../core/collections/ageing'
import { placeOf } from '../../core/dispatch/placeOf'
import { sayPoint } from '../../core/dispatch/readPoint'
import { territoryOf } from '../../core/customers/territoryOf'
import { sayDay } from '../../core/time/sayDay'
import { warrantyUntil } from '../../core/visits/warrantyUntil'
import { localDate } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import type { ShortQuote } from '../quotes/queries'
import { quoteWaits } from '../quotes/waits'
import type { TerritoryRow } from '../settings/queries'
import type { Supplied } from './history.queries'
import type { Owed } from './owed.queries'
import type { CustomerRow } from './queries'
import type { EquipmentRow, SiteRow } from './places.queries'

export type Caller = Answer<'caller'>
export type CustomerPaper = Answer<'customer'>
function warranty({ warrantyUntil: until }: EquipmentRow, { today, company }: Ctx): string {
  if (!until) return ''
  return until >= today
    ? `in warranty until ${sayDay(until, company.locale, 'withYear')}`
    : 'out of warranty'
}
/** What was supplied before, with the firm's warranty on it. */
export const suppliedOf =
  ({ company: { timeZone, warrantyMonths } }: Ctx) =>
  ({ at, ...supplied }: Supplied): CustomerPaper['supplied'][number] => {
    const on = localDate(Date.parse(at), timeZone)
    return { ...supplied, on, warrantyUntil: warrantyUntil(on, warrantyMonths) }
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
const sayPlace = (site: Pick<SiteRow, 'lat' | 'lon'>): string => {
  const place = placeOf(site)
  return place ? sayPoint(place) : ''
}
export function siteShapes(
  rows: SiteRow[],
  areas: readonly TerritoryRow[],
): CustomerPaper['sites'] {
  return rows.map(({ customerId: _customer, ...s }) => ({
    ...s,
    place: sayPlace(s),
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
export const quoteShapes = (ctx: Ctx, quotes: readonly ShortQuote[]): CustomerPaper['quotes'] =>
  quotes.map((q) => ({
    id: q.id,
    number: q.number,
    title: q.title,
    state: quoteState(q, ctx.today),
    total: toMoney(q.total, ctx.company.currency),
    waiting: quoteWaits(ctx, q).text,
  }))
export const NOTHING_OWED = { customerId: '', owed: 0, credits: 0, over60: 0, oldest: null }
export const lateBy = (debt: Owed, today: string) =>
  debt.oldest ? daysLate(debt.oldest, today) : 0
