// Time that no line covers: charged, or explained; and a work order that is closed without a bill.
import { workFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import { timeCharge, uncoveredOf } from './uncovered'
import { workOrderPaper } from './views'
import { addExplained, closeWork } from './queries'
import { insertLine, linesOf } from './lines.queries'

export async function explainTime(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'explainTime'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, workOrderId))
  if (body.seconds > uncoveredSeconds)
    throw invalid('seconds', 'Not that many minutes are uncovered.')
  await addExplained(ctx.tx, workOrderId, body.seconds)
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.timeExplained({ seconds: body.seconds, reason: body.reason }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
export async function chargeTime(
  ctx: Ctx,
  workOrderId: string,
  lineId: string,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { uncoveredSeconds, at } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, workOrderId))
  const charge = await timeCharge(ctx, work, uncoveredSeconds, at)
  if (!charge) throw conflict('nothing_uncovered', 'Every minute on site is covered by a line.')
  await insertLine(ctx.tx, {
    ...charge,
    id: lineId,
    workOrderId,
    visitId: null,
    promisedMinor: 0,
    done: true,
    coversSeconds: Math.max(charge.coversSeconds, uncoveredSeconds),
  })
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.timeCharged({ seconds: uncoveredSeconds }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
export async function closeWorkOrder(
  ctx: Ctx,
  workOrderId: string,
  reason: string,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  if (work.toBill > 0)
    throw conflict(
      'still_to_bill',
      'Something is done and not billed. Bill it, or take the line out.',
    )
  if (!['to_bill', 'billed'].includes(work.state))
    throw conflict('not_finished', 'Its visits are not finished.')
  await closeWork(ctx.tx, workOrderId)
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.closed({ reason }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
