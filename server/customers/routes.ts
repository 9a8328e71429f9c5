// The routes of customers, bound to their service.
import type { customerRoutes } from '../../shared/customers'
import type { Handlers } from '../http/handlers'
import { addCustomer, changeCustomer, customerPaper, findMatches, listCustomers } from './service'

export const customerHandlers: Handlers<typeof customerRoutes> = {
  matches: (ctx, { query }) => findMatches(ctx, query.q),
  customers: (ctx, { query }) => listCustomers(ctx, query),
  customer: (ctx, { params }) => customerPaper(ctx, params.id!),
  newCustomer: (ctx, { body }) => addCustomer(ctx, body),
  changeCustomer: (ctx, { params, body }) => changeCustomer(ctx, params.id!, body),
}
