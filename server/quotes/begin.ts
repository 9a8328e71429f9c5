// A quote is begun where the wish is heard: at a call, for a customer, or at a visit to quote.
import { keepCall, markCall } from '../calls/index'
import { callWaits } from '../../core/calls/callWaits'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import type { Body } from '../../shared/api'
import { callById } from '../calls/queries'
import { customerById } from '../customers/queries'
import { mustBeThere } from '../customers/aboutThere'
import { filesOfCallTo } from '../customers/history.queries'
import { siteById } from '../customers/places.queries'
import { signedIn, type Ctx } from '../http/context'
import { withoutCosts } from '../pricebook/priceLines'
import { nextNumber } from '../settings/numbers'
import { refreshWorkOrder, visibleWorkOrder } from '../visits/account'
import { begunFor, noteOnQuote, payer, setLines } from './draft'
import { quoteFacts } from './facts'
import { insertQuote, quoteById, type QuoteRow } from './queries'
import { quoteView, type QuoteView } from './views'

/** Begins a quote for a customer, from a call, or from the work order of a visit to quote. */
export async function beginQuote(ctx: Ctx, body: Body<'beginQuote'>): Promise<QuoteView> {
  const work = body.workOrderId ? await visibleWorkOrder(ctx, body.workOrderId, true) : null
  if (signedIn(ctx).role === 'technician') refuseForeignWork(body, work)
  const draft = await draftOf(ctx, body, work)
  const { number } = await nextNumber(ctx, 'quote')
  await insertQuote(ctx.tx, { ...draft, id: body.id, number })
  const quote = (await quoteById(ctx.tx, body.id))!
  await noteOnQuote(ctx, quote, quoteFacts.begun({ number, title: quote.title }))
  await setLines(ctx, quote, withoutCosts(ctx, body.lines))
  if (body.callId) await answerCall(ctx, body.callId, quote)
  if (work) await refreshWorkOrder(ctx, work.id)
  return quoteView(ctx, body.id)
}

type Work = Awaited<ReturnType<typeof visibleWorkOrder>>
type Draft = Omit<Parameters<typeof insertQuote>[1], 'id' | 'number'>
/** What a quote begins with: what was said, else what its work order says, else what the customer's record does. */
async function draftOf(ctx: Ctx, body: Body<'beginQuote'>, work: Work | null): Promise<Draft> {
  const { customerId = '', siteId = '', source = '' } = work ?? {}
  const whom = body.customerId ?? customerId
  const customer = await payer(ctx, whom, 'Choose for whom the quote is.')
  const site = await siteFor(ctx, body.siteId ?? siteId)
  await mustBeThere(ctx, body, site)
  return {
    ...wordsOf(body, work),
    ...begunFor(ctx, customer),
    ...aboutOf(body, work),
    siteId: site,
    workOrderId: work?.id ?? null,
    ownerId: ownerFor(ctx, work, customer),
    source: body.source || source || customer.source,
    contact: contactFor(ctx, body, work),
    answers: answersFor(body, work),
  }
}
/** What it is about; where nothing is named, what the work order is. */
const aboutOf = (body: Body<'beginQuote'>, work: Work | null) => ({
  equipmentId: body.equipmentId ?? work?.equipmentId ?? null,
  aboutLineId: body.suppliedLineId ?? work?.aboutLineId ?? null,
})
/** Who spoke; where nobody is named, whom the work order names. */
const contactFor = (ctx: Ctx, body: Body<'beginQuote'>, work: Work | null): Draft['contact'] =>
  work && !body.speaking
    ? { name: work.contact.name, phone: work.contact.phone }
    : { name: body.speaking, phone: formatPhone(body.phone, ctx.company.country) }
/** What was answered at the call; where nothing was asked, what the work order says. */
const answersFor = ({ answers }: Body<'beginQuote'>, work: Work | null): Draft['answers'] =>
  answers.length ? answers.filter(({ answer }) => answer) : (work?.answers ?? [])
async function siteFor(ctx: Ctx, id: string): Promise<string> {
  const site = await siteById(ctx.tx, id)
  if (!site) throw invalid('siteId', 'Choose where the work would be.')
  return site.id
}
/** Whoever has the work, or the customer, has the quote; else who begins it. */
const ownerFor = (ctx: Ctx, work: Work | null, customer: { assignedTo: string | null }): string =>
  work?.assignedTo ?? customer.assignedTo ?? signedIn(ctx).id
function wordsOf(
  body: Body<'beginQuote'>,
  work: Work | null,
): Pick<Draft, 'title' | 'scope' | 'orderNumber'> {
  const title = body.title || work?.title || body.scope.split(/[.\n]/)[0]!.slice(0, 80)
  if (!title) throw invalid('title', 'Write what the quote is for.')
  return {
    title,
    scope: body.scope || work?.problem || '',
    orderNumber: body.orderNumber || work?.orderNumber || '',
  }
}

/** A technician quotes for the work that they were sent to, and for nobody else. */
function refuseForeignWork(
  body: Body<'beginQuote'>,
  work: { customerId: string; siteId: string } | null,
): void {
  if (!work) throw notFound('work order')
  if (body.customerId && body.customerId !== work.customerId) throw notFound('customer')
  if (body.siteId && body.siteId !== work.siteId) throw notFound('site')
}
/** The call has its answer: it leaves the list of calls and waits among the quotes. */
async function answerCall(ctx: Ctx, callId: string, quote: QuoteRow): Promise<void> {
  const { tx } = ctx
  const call = await callById(tx, callId, true)
  if (call && !callWaits(call.state))
    throw conflict('already_answered', 'This call has its answer already.')
  if (!call) {
    const customer = (await customerById(tx, quote.customerId))!
    await keepCall(tx, {
      id: callId,
      draft: {},
      summary: customer.name,
      origin: 'telephone',
      by: signedIn(ctx).id,
      at: ctx.now,
    })
  }
  await markCall(tx, callId, 'quoted', { quoteId: quote.id })
  await filesOfCallTo(tx, callId, quote.customerId)
}
