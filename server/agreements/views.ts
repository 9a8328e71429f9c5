// What screens are told of care agreements: what is due by territory and month, the plans.
import { saySite } from '../../core/customers/saySite'
import { agreementState } from '../../core/agreements/agreementState'
import { territoryOf } from '../../core/customers/territoryOf'
import { plusDays, plusMonths } from '../../core/time/zone'
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { territories } from '../settings/queries'
import { agreementById, agreementPage, type AgreementRow } from './queries'

export type Row = Answer<'agreements'>['items'][number]
const shape =
  (ctx: Ctx, areas: { name: string; postcodes: string[] }[]) =>
  (a: AgreementRow): Row => ({
    id: a.id,
    version: a.version,
    customerId: a.customerId,
    customer: a.customer,
    phone: a.phone,
    site: saySite({ name: a.site, line1: a.line1, town: a.town }),
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
export async function oneRow(ctx: Ctx, id: string): Promise<Row> {
  return shape(ctx, await territories(ctx.tx))((await agreementById(ctx.tx, id))!)
}
