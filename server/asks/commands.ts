// What is over somebody's limit is asked of another person, and done with their yes: the very act, as it was asked.
import { conflict, forbidden, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { routes, type Answer, type Body } from '../../shared/api'
import type { Askable } from '../../core/access/limits'
import { may, signedIn, type Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { sendQuote } from '../quotes/commands'
import { visibleQuote } from '../quotes/views'
import { visibleWorkOrder } from '../visits/account'
import { intervalById } from '../visits/clock.queries'
import { discountLines } from '../visits/discounts'
import { changeLine } from '../visits/lines'
import { lineById } from '../visits/lines.queries'
import { enterTime, mendTime } from '../visits/mending'
import { visitById } from '../visits/visits.queries'
import { askFacts } from './facts'
import { askById, insertAsk, setAnswer, type AskRow } from './queries'

const LONGEST = 300
/** On which paper an act is, as far as whoever asks may see it. */
type About = Pick<AskRow, 'workOrderId' | 'quoteId' | 'customerId'>
async function ofWork(ctx: Ctx, id: string | null | undefined, lock: boolean): Promise<About> {
  if (!id) throw notFound('work order')
  const { customerId } = await visibleWorkOrder(ctx, id, lock)
  return { workOrderId: id, quoteId: null, customerId }
}
/** The work order of a visit is not locked: people are locked before it. */
const ofVisit = async (ctx: Ctx, id: string | null | undefined) =>
  ofWork(ctx, id && (await visitById(ctx.tx, id))?.workOrderId, false)
/** How each act is done, and what it is about. */
const ACTS: {
  [N in Askable]: {
    act: (ctx: Ctx, id: string, body: Body<N>) => Promise<unknown>
    about: (ctx: Ctx, id: string) => Promise<About>
  }
} = {
  changeLine: {
    act: changeLine,
    about: async (ctx, id) => ofWork(ctx, (await lineById(ctx.tx, id))?.workOrderId, true),
  },
  discountLines: { act: discountLines, about: (ctx, id) => ofWork(ctx, id, true) },
  enterTime: { act: enterTime, about: ofVisit },
  mendTime: {
    act: mendTime,
    about: async (ctx, id) => ofVisit(ctx, (await intervalById(ctx.tx, id))?.visitId),
  },
  sendQuote: {
    act: sendQuote,
    async about(ctx, id) {
      const { workOrderId, customerId } = await visibleQuote(ctx, id, true)
      return { workOrderId, quoteId: id, customerId }
    },
  },
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
  const about = await ACTS[route].about(ctx, subjectId)
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
    ...about,
  })
  await recordAsk(ctx, id, about, askFacts.asked({ what, reason }))
  return { ok: true }
}
const recordAsk = (ctx: Ctx, id: string, { workOrderId, quoteId, customerId }: About, fact: Fact) =>
  // A quote's history is what is said of it.
  record(ctx, {
    ...(quoteId ? { subject: 'quote', id: quoteId } : { subject: 'ask', id }),
    ...{ workOrderId, customerId, fact },
  })
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
  const { what, askedBy } = asked
  await recordAsk(ctx, id, asked, askFacts[state]({ what, askedBy, words }))
  return { ok: true }
}
