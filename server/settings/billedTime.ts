// How time on site becomes time that is charged.
import type { BilledTime } from '../../core/hours/billedTime'
import { conflict } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany, putBilledTime } from './queries'

const said = ({ way, stepMinutes, leastMinutes }: BilledTime) =>
  [way, stepMinutes, leastMinutes].join(' ')
/** It holds for what is charged from now on; whoever read it before somebody changed it is told. */
export async function keepBilledTime(
  ctx: Ctx,
  { shown, ...to }: Body<'keepBilledTime'>,
): Promise<Answer<'keepBilledTime'>> {
  await lockFirm(ctx.tx)
  const { billedTime: from } = (await getCompany(ctx.tx))!
  if (said(from) !== said(shown))
    throw conflict('stale', 'Someone changed what time is charged in the meantime.', {
      current: from,
    })
  if (said(from) !== said(to)) await changeBilledTime(ctx, { from, to })
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
