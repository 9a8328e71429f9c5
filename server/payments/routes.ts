// The routes of payments, bound to their service.
import type { paymentRoutes } from '../../shared/payments'
import type { Handlers } from '../http/route'
import { cardResult } from './card'
import { bounce, pay } from './commands'
import { listPayments } from './views'

export const paymentHandlers: Handlers<typeof paymentRoutes> = {
  pay: (ctx, { body }) => pay(ctx, body),
  payments: (ctx, { query }) => listPayments(ctx, query),
  bounce: (ctx, { params, body }) => bounce(ctx, params.id!, body.reason),
  cardResult: (ctx, { body }) => cardResult(ctx, body),
}
