// Messages about visits in the firm’s words, and the way they go.
import { ownDetails } from '../visits/details'
import { fillFields } from '../../core/text/fillFields'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localTime, plusDays } from '../../core/time/zone'
import { customerById, type CustomerRow } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import { isStillTrue, type VisitPromise } from '../../core/visits/visitPromise'
import type { VISIT_WORDS } from '../../shared/dispatch/setUp'
import type { Ctx } from '../http/context'
import { workOrderById, type WorkOrderRow } from '../visits/queries'
import { promiseOf, toldOf, type VisitRow } from '../visits/visits.queries'

export type MessageKind = (typeof VISIT_WORDS)[number]
const WORDS: Record<MessageKind, string> = {
  confirmation:
    'We come on {day}{window} for “{title}”, {place}. If that does not suit you, please ring {phone}.',
  eve: '{when}{window}, {who} comes to you for “{title}”. If something has come up, please ring {phone}.',
  onWay: '{who} is on the way to you and should arrive at about {time}.',
  moved:
    'We said that we would come on {before}. Now we come on {day}{window} for “{title}”, {place}. If that does not suit you, please ring {phone}.',
  later:
    'We said that we would come on {before} for “{title}”, and cannot. We tell you another time as soon as we have one; you reach us at {phone}.',
  off: 'We said that we would come on {before} for “{title}”. This visit will not take place. If you have a question, please ring {phone}.',
  late: 'We promised to be with you{window} and will be later than that: {who} should arrive at about {time}. We are sorry; if that does not suit you, please ring {phone}.',
}
/** What a message about a visit may name. */
export const VISIT_FIELDS = [
  ...(['name', 'title', 'day', 'window', 'before', 'when', 'time', 'who'] as const),
  ...(['place', 'phone', 'company'] as const),
] as const
export const wordsOf = (ctx: Ctx): Record<MessageKind, string> => ({
  ...WORDS,
  ...Object.fromEntries(
    Object.keys(WORDS).flatMap((k) =>
      ctx.company.wording[`visit_${k}`] ? [[k, ctx.company.wording[`visit_${k}`]!]] : [],
    ),
  ),
})
export async function about(ctx: Ctx, visit: VisitRow) {
  const work = (await workOrderById(ctx.tx, visit.workOrderId))!
  return {
    visit,
    work,
    customer: (await customerById(ctx.tx, work.customerId))!,
    site: (await siteById(ctx.tx, work.siteId))!,
  }
}
export type About = Awaited<ReturnType<typeof about>>
export function wayTo(
  customer: CustomerRow,
  work: WorkOrderRow,
): { channel: 'mail' | 'text' | 'none'; to: string[] } {
  const phone = work.contact.phone || customer.phone
  const mails = [customer.email, customer.email2].filter(Boolean)
  if (customer.textConsent === 'yes' && phone) return { channel: 'text', to: [phone] }
  return customer.mailConsent !== 'no' && mails.length
    ? { channel: 'mail', to: mails }
    : { channel: 'none', to: phone ? [phone] : [] }
}
const between = ({ from, to }: VisitPromise) => (from ? ` between ${from} and ${to}` : '')
/** The promise of a visit, where it holds at its place: no message names a day or a time that does not. */
const holding = (ctx: Ctx, { visit }: About): VisitPromise | null => {
  const promise = promiseOf(visit)
  const { timeZone } = ctx.company
  const holds = !visit.startAt || isStillTrue(promise, Date.parse(visit.startAt), timeZone)
  return holds ? promise : null
}
/** @param at when somebody is expected, epoch ms */
export function fill(ctx: Ctx, kind: MessageKind, a: About, at: number): string {
  const { locale, timeZone } = ctx.company
  const promise = holding(ctx, a)
  const told = toldOf(a.visit)
  const copy = ownDetails(a.work, a.customer, a.site)
  const date = promise?.date ?? localDate(at, timeZone)
  const day = sayDay(date, locale)
  const facts: Readonly<Record<(typeof VISIT_FIELDS)[number], string>> = {
    name: copy.name,
    title: a.work.title,
    day,
    window: promise ? between(promise) : '',
    before: told ? `${sayDay(told.date, locale)}${between(told)}` : '',
    when: date === plusDays(ctx.today, 1) ? `Tomorrow, ${day}` : `On ${day}`,
    time: localTime(at, timeZone),
    who: a.visit.technician?.split(' ')[0] ?? 'Our technician',
    place: [copy.siteLine1, copy.siteTown].filter(Boolean).join(', ') || 'at your place',
    phone: ctx.company.phone,
    company: ctx.company.name,
  }
  return fillFields(wordsOf(ctx)[kind], facts)
}
export const SUBJECT: Record<MessageKind, string> = {
  confirmation: 'your appointment',
  eve: 'your appointment is near',
  onWay: 'we are on the way',
  late: 'we are running late',
  moved: 'another time for our visit',
  later: 'our visit has to wait',
  off: 'our visit will not take place',
}
export const asMail = (ctx: Ctx, a: About, text: string) =>
  `Dear ${a.customer.name},\n\n${text}\n\n${ctx.company.name}`
