// What is over somebody's limit is asked of another person, and done with their yes: the very act, as it was asked.
import { conflict, forbidden, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { routes, type Answer, type Body } from '../../shared/api'
import type { Askable } from '../../core/access/limits'
import { may, signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { visibleWorkOrder } from '../visits/account'
import { discountLines } from '../visits/discounts'
import { changeLine } from '../visits/lines'
import { lineById } from '../visits/lines.queries'
import { askFacts } from './facts'
import { askById, insertAsk, setAnswer, type AskRow } from './queries'

const LONGEST = 300
/** How each act is done, and on which work order. */
const ACTS: {
  [N in Askable]: {
    act: (ctx: Ctx, id: string, body: Body<N>) => Promise<unknown>
    workOf: (ctx: Ctx, id: string) => Promise<string | null>
  }
} = {
  changeLine: {
    act: changeLine,
    workOf: async ({ tx }, id) => (await lineById(tx, id))?.workOrderId ?? null,
  },
  discountLines: { act: discountLines, workOf: (_, id) => Promise.resolve(id) },
}
/** Does what was asked, by whoever is signed in: within their limit, and on what is there now. An act that is over it has written nothing by then. */
async function carryOut(
  ctx: Ctx,
  { route, params, body }: Pick<AskRow, 'route' | 'params' | 'body'>,
) {
  const name = route as Askable
  const { act } = ACTS[name] as { act: (ctx: Ctx, id: string, body: unknown) => Promise<unknown> }
  await act(ctx, params.id!, await routes[name].body.validate(body, { stripUnknown: true }))
}
function read(text: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw invalid('body', 'This is no JSON.')
  }
}
export async function ask(ctx: Ctx, body: Body<'askForYes'>): Promise<Answer<'askForYes'>> {
  const me = signedIn(ctx)
  const { id, route, subjectId, reason } = body
  // Who may not do it at all does not come to it by asking.
  if (!may(ctx, routes[route].may)) throw forbidden('You may not do this.')
  const given = read(body.body)
  const workOrderId = await ACTS[route].workOf(ctx, subjectId)
  if (!workOrderId) throw notFound('line')
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const known = await askById(ctx.tx, id)
  if (known) return { ok: true }
  const asked = { route, params: { id: subjectId }, body: given }
  let what = ''
  try {
    await carryOut(ctx, asked)
  } catch (error) {
    if (!(error instanceof LedgerError) || error.code !== 'over_limit') throw error
    what = String(error.extra.what).slice(0, LONGEST)
  }
  // The limit was raised meanwhile: it is done.
  if (!what) return { ok: true }
  await insertAsk(ctx.tx, {
    ...{ id, ...asked, what, reason, askedById: me.id, at: ctx.now },
    ...{ workOrderId, customerId: work.customerId },
  })
  const { customerId } = work
  const fact = askFacts.asked({ what, reason })
  await record(ctx, { subject: 'ask', id, workOrderId, customerId, fact })
  return { ok: true }
}
/** Another person answers, who may do the act themselves. */
function mayAnswer(ctx: Ctx, { askedById, route }: AskRow, yes: boolean): void {
  if (!may(ctx, 'limits.answer')) throw notFound('question')
  if (!yes) return
  if (!may(ctx, routes[route as Askable].may)) throw forbidden('You may not do this.')
  if (askedById === signedIn(ctx).id) throw invalid('yes', 'Another person says yes to it.')
}
export async function answerAsk(
  ctx: Ctx,
  id: string,
  { yes, words }: Body<'answerAsk'>,
): Promise<Answer<'answerAsk'>> {
  const me = signedIn(ctx)
  const asked = await askById(ctx.tx, id)
  if (!asked) throw notFound('question')
  if (asked.state !== 'asked')
    throw conflict('already_answered', 'Somebody has answered it already.')
  const withdraws = !yes && asked.askedById === me.id
  if (!withdraws) mayAnswer(ctx, asked, yes)
  if (yes) await carryOut(ctx, asked)
  const no = withdraws ? 'withdrawn' : 'refused'
  const state = yes ? 'given' : no
  await setAnswer(ctx.tx, id, { state, by: me.id, at: ctx.now, words })
  const { what, askedBy, workOrderId, customerId } = asked
  const fact = askFacts[state]({ what, askedBy, words })
  await record(ctx, { subject: 'ask', id, workOrderId, customerId, fact })
  return { ok: true }
}
