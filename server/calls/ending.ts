// How calls end without a booking: put off, declined, answered; and how one that ended by mistake waits again.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { plusDays } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { callDraft } from '../../shared/calls'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { callFacts } from './facts'
import { callById, markCall, openAgain } from './queries'
import type { Row } from './views'

export async function endCall(
  ctx: Ctx,
  id: string,
  body: Body<'endCall'>,
): Promise<Answer<'endCall'>> {
  if (body.state === 'put_off' && !body.callBackOn)
    throw invalid('callBackOn', 'Choose the day on which to call back.')
  if (body.state === 'put_off' && body.callBackOn! < ctx.today)
    throw invalid('callBackOn', 'That day has passed.')
  if (body.state === 'put_off' && body.callBackOn! > plusDays(ctx.today, 400))
    throw invalid('callBackOn', 'That is more than a year away.')
  const call = await callById(ctx.tx, id, true)
  if (
    !call ||
    !(await markCall(ctx.tx, id, body.state, {
      reason: body.reason,
      callBackOn: body.callBackOn,
      assignedTo: body.assignedTo,
    }))
  )
    throw notFound('open call')
  const draft = callDraft.cast(call.draft) as Row['draft']
  await record(ctx, {
    subject: 'call',
    id,
    customerId: draft.customerId ?? null,
    fact: endFact(body),
  })
  return { ok: true }
}
/** A call that was ended by mistake waits again, as it was. */
export async function reopenCall(ctx: Ctx, id: string): Promise<Answer<'reopenCall'>> {
  const call = await callById(ctx.tx, id, true)
  if (!call) throw notFound('call')
  if (!(await openAgain(ctx.tx, id)))
    throw conflict('not_ended', 'This call waits already, or work came of it.')
  const draft = callDraft.cast(call.draft) as Row['draft']
  const about = { subject: 'call', id, customerId: draft.customerId ?? null } as const
  await record(ctx, { ...about, fact: callFacts.reopened() })
  return { ok: true }
}
function endFact({ state, reason, callBackOn }: Body<'endCall'>) {
  if (state === 'put_off') return callFacts.putOff({ until: callBackOn!, reason })
  return callFacts[state]({ reason })
}
