// What customers are told of their visits: confirmed, reminded, told that somebody comes or is late.
import { updateRow } from '../customers/index'
import { lockCompany } from '../calls/index'
import { visitFacts } from '../visits/facts'
import type { Fact } from '../http/facts'
import { customerFacts } from '../customers/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { MINUTE } from '../../core/time/units'
import { dayBounds, localDate, localTime, plusDays } from '../../core/time/zone'
import { isStillTrue, sayPromise } from '../../core/visits/visitPromise'
import { whereToldStands } from '../../core/waiting/whereItStands'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import { customersByPhone } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { wasWritten } from '../messages/queries'
import { queueMail, queueText } from '../messages/service'
import { setReminded, setTold } from '../visits/index'
import { promiseOf, toldOf, visitById, type VisitRow } from '../visits/visits.queries'
import { waitsAt } from '../waiting/at'
import { forecastOf } from './forecast'
import { visitsBetween } from './board.queries'
import type { MessageKind, About } from './messageWords'
import { about, wayTo, fill, SUBJECT, asMail } from './messageWords'

/** From this hour on, tomorrow's customers are reminded by themselves, where the firm wants that. */
const EVE_HOUR = 16
/** Sends one, by the way that the customer wants; says who has to be rung where there is none. */
async function send(
  ctx: Ctx,
  kind: MessageKind,
  a: About,
  at: number,
): Promise<'mail' | 'text' | 'none'> {
  const way = wayTo(a.customer, a.work)
  const text = fill(ctx, kind, a, at)
  const of = { kind: `visit_${kind}`, customerId: a.customer.id, visitId: a.visit.id }
  if (way.channel === 'text') await queueText(ctx, { ...of, to: way.to[0]!, body: text })
  if (way.channel === 'mail')
    await queueMail(ctx, {
      ...of,
      invoiceId: null,
      to: way.to,
      subject: `${ctx.company.name}: ${SUBJECT[kind]}`,
      body: asMail(ctx, a, text),
      attach: 'none',
    })
  return way.channel
}
/** The confirmation of a booking that has its time. */
export async function confirmVisit(ctx: Ctx, visitId: string): Promise<void> {
  const visit = (await visitById(ctx.tx, visitId))!
  if (ctx.company.visitMessages.confirmation && visit.startAt && visit.technicianId)
    await send(ctx, 'confirmation', await about(ctx, visit), Date.parse(visit.startAt))
}
/** Told once on a day: a clock that is pressed twice tells nobody twice. */
export async function tellOnWay(ctx: Ctx, visit: VisitRow, arriveAt: number): Promise<void> {
  const { from } = dayBounds(ctx.today, ctx.company.timeZone)
  if (ctx.company.visitMessages.onWay && !(await wasWritten(ctx.tx, 'visit_onWay', visit.id, from)))
    await send(ctx, 'onWay', await about(ctx, visit), soon(arriveAt))
}
/** Times that are foreseen are said to the next five minutes. */
const soon = (at: number) => Math.ceil(at / (5 * MINUTE)) * (5 * MINUTE)
interface Remindable {
  a: About
  at: number
  told: boolean
  /** what is promised does not hold where the visit stands now: first somebody decides */
  broken: boolean
}
async function tomorrows(ctx: Ctx, date: string): Promise<Remindable[]> {
  const { timeZone } = ctx.company
  const { from, to } = dayBounds(date, timeZone)
  const rows = (await visitsBetween(ctx.tx, from, to)).filter(
    (v) => v.state === 'planned' && v.technicianId,
  )
  const out: Remindable[] = []
  for (const { id, startAt } of rows) {
    const a = await about(ctx, (await visitById(ctx.tx, id))!)
    const at = Date.parse(startAt!)
    const broken = !isStillTrue(promiseOf(a.visit), at, timeZone)
    out.push({ a, at, told: a.visit.remindedFor === date, broken })
  }
  return out
}
const asReminders = (ctx: Ctx, date: string, all: readonly Remindable[]): Answer<'reminders'> => ({
  date,
  items: all.map(({ a, at, told, broken }) => {
    const way = wayTo(a.customer, a.work)
    return {
      visitId: a.visit.id,
      customer: a.customer.name,
      when: localTime(at, ctx.company.timeZone),
      channel: way.channel,
      to: way.to.join(', '),
      body: broken ? '' : fill(ctx, 'eve', a, at),
      told,
      broken: broken ? sayPromise(promiseOf(a.visit)!, (d) => sayDay(d, ctx.company.locale)) : '',
    }
  }),
})
export const reminders = async (ctx: Ctx, date: string): Promise<Answer<'reminders'>> =>
  asReminders(ctx, date, await tomorrows(ctx, date))
export async function sendReminders(ctx: Ctx, date: string): Promise<Answer<'reminders'>> {
  if (date < ctx.today) throw conflict('past', 'That day has passed.')
  // One at a time: two who press at once, or the clock and a person, must not both find that nobody was told.
  await lockCompany(ctx.tx)
  const all = await tomorrows(ctx, date)
  // Whoever has to be rung stays untold: nobody has told them yet.
  for (const one of all) {
    if (one.told || one.broken || (await send(ctx, 'eve', one.a, one.at)) === 'none') continue
    one.told = true
    await setReminded(ctx.tx, one.a.visit.id, date)
    await setTold(ctx.tx, one.a.visit.id, promiseOf(one.a.visit))
  }
  return asReminders(ctx, date, all)
}
/** In the afternoon, tomorrow's: each once, however often it is asked. */
export async function remindTomorrow(ctx: Ctx): Promise<void> {
  if (
    ctx.company.visitMessages.eve &&
    Number(localTime(ctx.now, ctx.company.timeZone).slice(0, 2)) >= EVE_HOUR
  )
    await sendReminders(ctx, plusDays(ctx.today, 1))
}
/** What there is to say of a visit now: that it changed or is off, that somebody will be late, or when it is. */
function kindNow(ctx: Ctx, visit: VisitRow, late: boolean): MessageKind {
  const [told, promise] = [toldOf(visit), promiseOf(visit)]
  const stands = whereToldStands({ state: visit.state, told, promise }, waitsAt(ctx).at)
  if (visit.state === 'cancelled') return 'off'
  if (!('place' in stands)) return late ? 'late' : 'confirmation'
  // Who was told of no day hears of this one as of a first.
  if (!told) return 'confirmation'
  return promise ? 'moved' : 'later'
}
/** When somebody is to be expected, and whether that is later than promised. */
async function expectedOf(ctx: Ctx, { id, technicianId, startAt }: VisitRow) {
  if (!startAt) return { expected: ctx.now, late: false }
  const day = localDate(Date.parse(startAt), ctx.company.timeZone)
  const forecast = (await forecastOf(ctx, technicianId, day)).get(id)
  return forecast
    ? { expected: soon(forecast.arriveAt), late: forecast.atRisk }
    : { expected: Date.parse(startAt), late: false }
}
/** What would be said to whom now, before anybody says it. */
export async function noticeOf(ctx: Ctx, id: string): Promise<Answer<'visitNotice'>> {
  const visit = await visitById(ctx.tx, id)
  if (!visit) throw notFound('visit')
  const isKnownOf = visit.toldDate !== null || visit.state !== 'cancelled'
  if (!isKnownOf || !(visit.startAt || visit.toldDate || visit.promiseDate))
    throw notFound('visit to speak of')
  const a = await about(ctx, visit)
  const { expected, late } = await expectedOf(ctx, visit)
  const kind = kindNow(ctx, visit, late)
  const text = fill(ctx, kind, a, expected)
  return {
    visitId: id,
    version: visit.version,
    kind,
    customer: a.customer.name,
    phone: a.work.contact.phone || a.customer.phone,
    to: [a.customer.email, a.customer.email2].filter(Boolean),
    mails: a.customer.mailConsent !== 'no',
    texts: a.customer.textConsent === 'yes',
    late: kind === 'late',
    subject: `${ctx.company.name}: ${kind === 'confirmation' ? 'when we come' : SUBJECT[kind]}`,
    body: asMail(ctx, a, text),
    text,
  }
}
type Telling = Body<'tellCustomer'>
type Notice = Answer<'visitNotice'>
const MAIL = /^[^@\s]+@[^@\s]+\.[^@\s]+$/
const kindOf = ({ kind }: Notice) => `visit_${kind === 'confirmation' ? 'notice' : kind}`

/** Puts a text in the queue; answers to which number. */
async function tellByText(
  ctx: Ctx,
  { visit, work }: About,
  notice: Notice,
  body: Telling,
): Promise<string[]> {
  if (!notice.texts)
    throw conflict(
      'no_texts',
      'This customer has not agreed to texts. Ring them, or write a mail.',
      { phone: notice.phone },
    )
  const to = formatPhone(body.to[0] ?? notice.phone, ctx.company.country)
  if (!/\d{7}/.test(to.replace(/\D/g, ''))) throw invalid('to', 'Write the number that it goes to.')
  await queueText(ctx, {
    kind: kindOf(notice),
    customerId: work.customerId,
    visitId: visit.id,
    to,
    body: (body.body || notice.text).slice(0, 600),
  })
  return [to]
}
/** Puts a mail in the queue; answers to which addresses. */
async function tellByMail(
  ctx: Ctx,
  { visit, work }: About,
  notice: Notice,
  { to, subject, body }: Telling,
): Promise<string[]> {
  if (!notice.mails)
    throw conflict('no_mails', 'This customer wants no mails. Ring them instead.', {
      phone: notice.phone,
    })
  if (to.length === 0) throw invalid('to', 'Write to whom it goes.')
  if (to.some((t) => !MAIL.test(t))) throw invalid('to', 'This is not a mail address.')
  await queueMail(ctx, {
    kind: kindOf(notice),
    customerId: work.customerId,
    visitId: visit.id,
    invoiceId: null,
    to,
    subject: subject || notice.subject,
    body: body || notice.body,
    attach: 'none',
  })
  return to
}
export async function tell(ctx: Ctx, id: string, body: Telling): Promise<Answer<'tellCustomer'>> {
  const visit = await visitById(ctx.tx, id, true)
  const notice = await noticeOf(ctx, id)
  // What was written names what was so when it was read.
  if (notice.version !== body.version)
    throw conflict('stale', 'The visit was changed meanwhile: look at what is said of it now.', {
      current: notice,
    })
  const whom = await about(ctx, visit!)
  const factOf = async (): Promise<Fact> => {
    if (body.spoken) return visitFacts.toldBySpeech({ words: body.spoken })
    const by = body.channel === 'text' ? 'text' : 'mail'
    const to = await (by === 'text' ? tellByText : tellByMail)(ctx, whom, notice, body)
    return visitFacts.told({ by, what: notice.kind, to })
  }
  const { id: workOrderId, customerId } = whom.work
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact: await factOf() })
  // That somebody is late changes nothing of what they were promised.
  if (notice.kind !== 'late')
    await setTold(ctx.tx, id, notice.kind === 'off' ? null : promiseOf(visit!))
  return { ok: true }
}
/** STOP, and the like, ends texts to that number: whoever it belongs to is not texted again. */
export async function textIn(ctx: Ctx, body: Body<'textIn'>): Promise<Answer<'textIn'>> {
  const stop = /^\s*(stop|end|quit|cancel|unsubscribe)\b/i.test(body.text)
  for (const c of await customersByPhone(ctx.tx, formatPhone(body.from, ctx.company.country))) {
    if (stop && c.textConsent !== 'no')
      await updateRow(ctx.tx, 'customers', c, { textConsent: 'no' })
    await record(ctx, {
      subject: 'customer',
      id: c.id,
      customerId: c.id,
      fact: stop ? customerFacts.textsStopped() : customerFacts.texted({ words: body.text }),
    })
  }
  return { ok: true }
}
