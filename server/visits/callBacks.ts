// Coming back without charge: a call-back or a warranty visit is a work order of its own, whose cost counts on the first.
import { workFacts } from './facts'
import { sayWorkKind } from '../../core/visits/workKinds'
import { conflict } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import type { Fact } from '../http/facts'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import { makeWaitingVisit, makeWorkOrder } from './newWorkOrder'
import { workOrderById, type WorkOrderRow } from './queries'

/** Only work that is done has anything to come back for, and what comes back belongs to the first. */
function mayComeBack(first: WorkOrderRow): void {
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
}
type Again = Body<'callBack'>
const titleOf = (kind: Again['kind'], title: string) =>
  `${kind === 'warranty' ? 'Warranty' : 'Call-back'}: ${title}`.slice(0, 160)

export async function callBack(ctx: Ctx, id: string, body: Again): Promise<Answer<'callBack'>> {
  const first = await visibleWorkOrder(ctx, id, true)
  mayComeBack(first)
  // Asked for twice, it is the same one.
  const known = await workOrderById(ctx.tx, body.workOrderId)
  if (known) return { workOrderId: known.id, number: known.number }
  const { workOrderId, visitId, kind, problem } = body
  const customer = (await customerById(ctx.tx, first.customerId))!
  const site = (await siteById(ctx.tx, first.siteId))!
  const number = await makeWorkOrder(
    ctx,
    { customer, site },
    {
      id: workOrderId,
      title: titleOf(kind, first.title),
      problem,
      kind,
      contact: first.contact,
      orderNumber: first.orderNumber,
      priceLevelId: first.priceLevelId,
      currency: first.currency,
      printedNote: first.printedNote,
      equipmentId: first.equipmentId,
      callbackOf: first.id,
    },
  )
  const note = `${sayWorkKind(kind)} of ${first.number}`
  await makeWaitingVisit(ctx, { id: visitId, workOrderId, durationSeconds: 3600, note })
  const told = (of: string, fact: Fact) =>
    record(ctx, {
      subject: 'work',
      id: of,
      workOrderId: of,
      customerId: first.customerId,
      fact,
    })
  await told(workOrderId, workFacts.calledBack({ kind, of: first.number, problem }))
  await told(first.id, workFacts.lookedAtAgain({ number, kind }))
  await refreshWorkOrder(ctx, workOrderId)
  return { workOrderId, number }
}
