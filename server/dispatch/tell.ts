// Telling a customer about a visit by mail: that it will be late, or when it is; their wish to get no mail is kept.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { localTime } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { queueMail } from '../messages/service'
import { visitById, workOrderById } from '../visits/queries'
import { schedule } from './service'

/** What would be said to whom, before anybody says it. */
export async function noticeOf(ctx: Ctx, id: string): Promise<Answer<'visitNotice'>> {
  const visit = await visitById(ctx.tx, id)
  if (!visit || !visit.startAt) throw notFound('visit with a slot')
  const work = (await workOrderById(ctx.tx, visit.workOrderId))!
  const customer = (await customerById(ctx.tx, work.customerId))!
  const zone = ctx.company.timeZone
  const board = (await schedule(ctx, visit.promiseDate ?? undefined)).visits.find(v => v.id === id)
  const expected = board?.arriveAt ? Math.ceil(Date.parse(board.arriveAt) / 300_000) * 300_000 : Date.parse(visit.startAt)
  const who = visit.technician?.split(' ')[0] ?? 'Our technician'
  const promised = visit.promiseFrom ? `between ${visit.promiseFrom} and ${visit.promiseTo}` : ''
  const body = board?.atRisk
    ? `Dear ${customer.name},\n\nwe promised to be with you ${promised} and will be later than that. ${who} should arrive at about ${localTime(expected, zone)}. We are sorry; if that does not suit you, please ring us on ${ctx.company.phone}.\n\n${ctx.company.name}`
    : `Dear ${customer.name},\n\n${who} comes to you for “${work.title}” and should arrive at about ${localTime(expected, zone)}${promised ? `, ${promised} as promised` : ''}. If that does not suit you, please ring us on ${ctx.company.phone}.\n\n${ctx.company.name}`
  return { visitId: id, customer: customer.name, phone: work.contact.phone || customer.phone, to: [customer.email, customer.email2].filter(Boolean), mails: customer.mailConsent !== 'no', late: board?.atRisk ?? false, subject: `${ctx.company.name}: ${board?.atRisk ? 'we are running late' : 'when we come'}`, body }
}
export async function tell(ctx: Ctx, id: string, body: Body<'tellCustomer'>): Promise<Answer<'tellCustomer'>> {
  const notice = await noticeOf(ctx, id)
  const visit = (await visitById(ctx.tx, id))!
  const work = (await workOrderById(ctx.tx, visit.workOrderId))!
  if (body.spoken) {
    await record(ctx, { subject: 'visit', id, workOrderId: work.id, customerId: work.customerId, text: `Told by telephone: ${body.spoken}` })
    return { ok: true }
  }
  if (!notice.mails) throw conflict('no_mails', 'This customer wants no mails. Ring them instead.', { phone: notice.phone })
  if (body.to.length === 0) throw invalid('to', 'Write to whom it goes.')
  await queueMail(ctx, { kind: 'visit', customerId: work.customerId, invoiceId: null, to: body.to, subject: body.subject || notice.subject, body: body.body || notice.body, attach: 'none' })
  await record(ctx, { subject: 'visit', id, workOrderId: work.id, customerId: work.customerId, text: notice.late ? 'Told by mail that the visit will be late' : 'Told by mail when the visit is' })
  return { ok: true }
}
