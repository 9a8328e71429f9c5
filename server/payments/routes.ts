// The routes of payments, bound to their service.
import type { paymentRoutes } from '../../shared/payments'
import type { Handlers } from '../http/route'
import { cardResult } from './card'
import { pay, takeBack } from './commands'
import { listPayments } from './views'

export const paymentHandlers: Handlers<typeof paymentRoutes> = {
  pay: (ctx, { body }) => pay(ctx, body),
  payments: (ctx, { query }) => listPayments(ctx, query),
  takeBack: (ctx, { params, body }) => takeBack(ctx, params.id!, body),
  cardResult: (ctx, { body }) => cardResult(ctx, body),
}
