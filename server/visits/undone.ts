// What was promised and not done: somebody says why, and it is left; it may be put back like any line that was taken out.
import { conflict } from '../../core/errors/LedgerError'
import { isUnderWay } from '../../core/visits/visitLifecycle'
import { minorToDecimal } from '../../core/money/formatMinor'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { isUndone, refreshWorkOrder, visibleWorkOrder } from './account'
import { workFacts } from './facts'
import { linesOf, updateLine } from './lines.queries'
import { visitsOfWork } from './visits.queries'
import { workOrderPaper } from './views'

/** Leaves those of the lines that were shown that nobody has done, or taken out, meanwhile. */
export async function leaveUndone(
  ctx: Ctx,
  workOrderId: string,
  { lineIds, reason }: Body<'leaveUndone'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const visits = await visitsOfWork(ctx.tx, workOrderId)
  // It is known only once nobody goes there any more; somebody may have planned a visit meanwhile.
  const isOver = !visits.some(({ state }) => state === 'planned' || isUnderWay(state))
  const lines = isOver && work.state === 'to_bill' ? await linesOf(ctx.tx, workOrderId) : []
  const left = lines.filter((line) => lineIds.includes(line.id) && isUndone(line))
  if (!left.length)
    throw conflict(
      'stale',
      'Nothing of it waits for a reason any more: it is done, taken out, or somebody goes there.',
    )
  for (const line of left) await updateLine(ctx.tx, line, true)
  const net = left.reduce((sum, { netMinor }) => sum + netMinor, 0)
  await record(ctx, {
    ...{ subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId },
    fact: workFacts.leftUndone({
      ...{ names: left.map(({ name }) => name), reason },
      net: minorToDecimal(net, work.currency),
    }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
