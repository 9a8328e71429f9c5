// Time that no line covers: charged, or explained.
import { workFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import { timeCharge, uncoveredOf } from './uncovered'
import { workOrderPaper } from './views'
import { addExplained, type WorkOrderRow } from './queries'
import { insertLine, linesOf } from './lines.queries'

/** Leaves out minutes that no line covers, as many of those that were shown as there are. */
export async function leaveOut(
  ctx: Ctx,
  work: WorkOrderRow,
  { seconds, reason }: { seconds: number; reason: string },
): Promise<void> {
  const { id, customerId } = work
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, id))
  const left = Math.min(seconds, uncoveredSeconds)
  if (!left) return
  await addExplained(ctx.tx, id, left)
  const fact = workFacts.timeExplained({ seconds: left, reason })
  await record(ctx, { subject: 'work', id, workOrderId: id, customerId, fact })
}
export async function explainTime(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'explainTime'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, workOrderId))
  if (body.seconds > uncoveredSeconds)
    throw invalid('seconds', 'Not that many minutes are uncovered.')
  await leaveOut(ctx, work, body)
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
