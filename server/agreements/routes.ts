// The routes of care agreements, bound to their acts and views.
import type { agreementRoutes } from '../../shared/agreements'
import type { Handlers } from '../http/route'
import { addAgreement, billAgreement, bookDueVisits, renewAgreement } from './commands'
import { keepPlan, listPlans } from './plans'
import { listAgreements } from './views'

export const agreementHandlers: Handlers<typeof agreementRoutes> = {
  agreements: (ctx, { query }) => listAgreements(ctx, query),
  newAgreement: (ctx, { body }) => addAgreement(ctx, body),
  renewAgreement: (ctx, { params, body }) => renewAgreement(ctx, params.id!, body.version),
  billAgreement: (ctx, { params, body }) => billAgreement(ctx, params.id!, body),
  bookDueVisits: (ctx, { body }) => bookDueVisits(ctx, body),
  plans: (ctx) => listPlans(ctx),
  keepPlan: (ctx, { body }) => keepPlan(ctx, body),
}
