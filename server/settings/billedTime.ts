// How time on site becomes time that is charged.
import type { BilledTime } from '../../core/hours/billedTime'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { alike, refuseOther } from './asShown'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany, putBilledTime } from './queries'

/** It holds for what is charged from now on; whoever read it before somebody changed it is told. */
export async function keepBilledTime(
  ctx: Ctx,
  { shown, ...to }: Body<'keepBilledTime'>,
): Promise<Answer<'keepBilledTime'>> {
  await lockFirm(ctx.tx)
  const { billedTime: from } = (await getCompany(ctx.tx))!
  refuseOther('what time is charged', { now: from, shown })
  if (!alike(from, to)) await changeBilledTime(ctx, { from, to })
  return { ok: true }
}
export async function changeBilledTime(
  ctx: Ctx,
  time: { from: BilledTime; to: BilledTime },
): Promise<void> {
  await putBilledTime(ctx.tx, time.to)
  const fact = settingFacts.billedTimeSaid({ time })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
}
