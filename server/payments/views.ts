// What screens are told of payments.
import { toMoney } from '../../core/money/formatMinor'
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { paymentPage } from './queries'

export async function listPayments(
  ctx: Ctx,
  query: Query<'payments'>,
): Promise<Answer<'payments'>> {
  const p = paging(query, ['received'], '-received')
  const { rows, total } = await paymentPage(ctx.tx, { ...p, q: query.q ?? '' })
  return pageOf(rows, total, p.limit, (r) => ({
    id: r.id,
    number: r.number,
    customer: r.customer,
    method: r.method,
    reference: r.reference,
    on: r.on,
    amount: toMoney(r.amount, ctx.company.currency),
    takenBack: r.backReason,
    takenBy: r.takenBy ?? 'customer',
  }))
}
