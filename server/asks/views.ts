// What waits for a yes, as screens show it.
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { asksAbout } from './queries'

/** What waits for a yes on a work order or a quote, as its screens show it. */
export const asksPart = async (
  ctx: Ctx,
  of: 'work_order_id' | 'quote_id',
  id: string,
): Promise<Answer<'workOrder'>['asks']> =>
  (await asksAbout(ctx.tx, of, id)).map(
    ({ id: askId, what, reason, askedBy, askedById, askedAt }) => ({
      ...{ id: askId, what, reason, askedBy, askedAt },
      mine: askedById === signedIn(ctx).id,
    }),
  )
