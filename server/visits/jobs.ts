// What the firm's work does by itself: a state that was kept by an older rule is worked out anew.
import { DAY, MINUTE } from '../../core/time/units'
import { fromSnapshot } from '../db/pool'
import { inBackgroundContext } from '../http/context'
import { log } from '../http/log'
import type { JobKind } from '../jobs/jobs'
import { refreshWorkOrder } from './account'
import { misstatedIn } from './misstated'
import { standings } from './standing.queries'

/** The work orders whose kept state is not the one that follows, as everything stood at one moment. */
async function misstated(now: number): Promise<string[]> {
  const found: string[] = []
  const ids = fromSnapshot(async function* (tx) {
    for await (const row of standings(tx, now)) if (misstatedIn(row).length) yield row.id
  })
  for await (const id of ids) found.push(id)
  return found
}
/** Works out anew what is kept otherwise than it follows: after a new version, whose rules may say more than those before. */
export async function restate(now: number): Promise<number> {
  const ids = await misstated(now)
  for (const id of ids) await inBackgroundContext((ctx) => refreshWorkOrder(ctx, id))
  if (ids.length)
    log.warn({ workOrders: ids.length }, 'kept otherwise than it followed: worked out anew')
  return ids.length
}
export const restateJob: JobKind = {
  kind: 'restate',
  atOnce: 1,
  limitMs: 10 * MINUTE,
  tries: 3,
  waitMs: () => MINUTE,
  everyMs: DAY,
  async run() {
    const now = await inBackgroundContext((ctx) => Promise.resolve(ctx.now))
    await restate(now)
    return undefined
  },
}
