// Coming back without charge: a call-back or a warranty visit is a work order of its own, whose cost counts on the first.
import { workFacts } from './facts'
import { sayWorkKind } from '../../core/visits/workKinds'
import { conflict } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { nextNumber } from '../settings/queries'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import { detailsOf } from './details'
import { insertVisit } from './visits.queries'
import { insertWorkOrder, workOrderById } from './queries'
import { WORK_ORDER_NUMBERS } from './numbers'

export async function callBack(
  ctx: Ctx,
  id: string,
  body: Body<'callBack'>,
): Promise<Answer<'callBack'>> {
  const first = await visibleWorkOrder(ctx, id, true)
  if (first.callbackOf)
    throw conflict(
      'is_call_back',
      'This is a call-back itself: begin it from the work order that it belongs to.',
    )
  if (!['to_bill', 'billed', 'closed'].includes(first.state))
    throw conflict(
      'not_done_yet',
      'The work is not finished yet: plan a further visit of it instead.',
    )
  // Asked for twice, it is the same one.
  const known = await workOrderById(ctx.tx, body.workOrderId)
  if (known) return { workOrderId: known.id, number: known.number }
  const [customer, site] = [
    (await customerById(ctx.tx, first.customerId))!,
    (await siteById(ctx.tx, first.siteId))!,
  ]
  const number = await nextNumber(ctx.tx, WORK_ORDER_NUMBERS)
  await insertWorkOrder(ctx.tx, {
    id: body.workOrderId,
    number,
    customerId: first.customerId,
    siteId: first.siteId,
    title: `${body.kind === 'warranty' ? 'Warranty' : 'Call-back'}: ${first.title}`.slice(0, 160),
    problem: body.problem,
    kind: body.kind,
    contact: first.contact,
    orderNumber: first.orderNumber,
    priceLevelId: first.priceLevelId,
    currency: first.currency,
    now: ctx.now,
    details: detailsOf(customer, site),
    answers: [],
    printedNote: first.printedNote,
    equipmentId: first.equipmentId,
    assignedTo: null,
    source: '',
    callbackOf: first.id,
  })
  await insertVisit(ctx.tx, {
    id: body.visitId,
    workOrderId: body.workOrderId,
    technicianId: null,
    startAt: null,
    durationSeconds: 3600,
    promiseDate: null,
    promiseFrom: null,
    promiseTo: null,
    note: `${sayWorkKind(body.kind)} of ${first.number}`,
  })
  await record(ctx, {
    subject: 'work',
    id: body.workOrderId,
    workOrderId: body.workOrderId,
    customerId: first.customerId,
    fact: workFacts.calledBack({ kind: body.kind, of: first.number, problem: body.problem }),
  })
  await record(ctx, {
    subject: 'work',
    id: first.id,
    workOrderId: first.id,
    customerId: first.customerId,
    fact: workFacts.lookedAtAgain({ number, kind: body.kind }),
  })
  await refreshWorkOrder(ctx, body.workOrderId)
  return { workOrderId: body.workOrderId, number }
}
