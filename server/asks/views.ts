// What waits for a yes, as screens show it.
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { asksOfWork } from './queries'

/** What waits for a yes on a work order, as its screens show it. */
export const asksPart = async (
  ctx: Ctx,
  workOrderId: string,
): Promise<Answer<'workOrder'>['asks']> =>
  (await asksOfWork(ctx.tx, workOrderId)).map(
    ({ id, what, reason, askedBy, askedById, askedAt }) => ({
      ...{ id, what, reason, askedBy, askedAt },
      mine: askedById === signedIn(ctx).id,
    }),
  )
