// Something is billed that nobody goes out for: it begins as a work order without a visit, and waits among what is to bill.
import { checkWorkKind } from '../settings/index'
import { invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder } from './account'
import { workFacts } from './facts'
import { makeWorkOrder } from './newWorkOrder'
import { workOrderPaper } from './views'

export async function beginBill(
  ctx: Ctx,
  { id, customerId, siteId, title, kind }: Body<'beginBill'>,
): Promise<Answer<'workOrder'>> {
  checkWorkKind(ctx, kind)
  const customer = await customerById(ctx.tx, customerId)
  if (!customer || customer.mergedInto || customer.erasedAt)
    throw invalid('customerId', 'Choose the customer.')
  const site = await siteById(ctx.tx, siteId)
  if (site?.customerId !== customerId) throw invalid('siteId', 'Choose a site of this customer.')
  const number = await makeWorkOrder(ctx, { customer, site }, { id, title, problem: title, kind })
  await record(ctx, {
    ...{ subject: 'work', id, workOrderId: id, customerId },
    fact: workFacts.soldWithoutVisit({ number, title }),
  })
  await refreshWorkOrder(ctx, id)
  return workOrderPaper(ctx, id)
}
