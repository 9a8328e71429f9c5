// Invitations to a visit, which the customer’s calendar follows.
import { visitFacts } from '../visits/facts'
import { notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localTime } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { invitedTo } from '../messages/queries'
import { queueMail } from '../messages/service'
import { visitById } from '../visits/visits.queries'
import { writeInvitation } from './calendar'
import type { About } from './messageWords'
import { about, fill } from './messageWords'

/** A visit as an invitation to whoever keeps a calendar: a tenant, a caretaker, a subcontractor. */
export async function invite(
  ctx: Ctx,
  id: string,
  body: Body<'inviteToVisit'>,
): Promise<Answer<'inviteToVisit'>> {
  const visit = await visitById(ctx.tx, id)
  if (!visit || !visit.startAt) throw notFound('visit with a slot')
  const a = await about(ctx, visit)
  // Written now to say early what is wrong with it; the mail carries it as it is when it leaves.
  await writeInvitation(ctx, id, body.to)
  await queueInvitation(ctx, a, body.to, fill(ctx, 'confirmation', a, Date.parse(visit.startAt)))
  await record(ctx, {
    subject: 'visit',
    id,
    workOrderId: a.work.id,
    customerId: a.customer.id,
    fact: visitFacts.invited({ to: body.to }),
  })
  return { ok: true }
}
const queueInvitation = (ctx: Ctx, a: About, to: string[], body: string) =>
  queueMail(ctx, {
    kind: 'visit_invitation',
    customerId: a.customer.id,
    visitId: a.visit.id,
    invoiceId: null,
    to,
    subject: `${ctx.company.name}: ${a.work.title}, ${sayDay(localDate(Date.parse(a.visit.startAt!), ctx.company.timeZone), ctx.company.locale)}`,
    body,
    attach: 'invitation',
  })
/** Whoever was invited hears of the new time, or that it will not be: their calendar follows (RFC 5546, REQUEST and CANCEL). */
export async function inviteAgain(ctx: Ctx, id: string): Promise<void> {
  const to = await invitedTo(ctx.tx, id)
  const visit = to.length ? (await visitById(ctx.tx, id))! : null
  if (!visit?.startAt) return
  const a = await about(ctx, visit)
  const day = sayDay(localDate(Date.parse(visit.startAt), ctx.company.timeZone), ctx.company.locale)
  await queueInvitation(
    ctx,
    a,
    to,
    visit.state === 'cancelled'
      ? `Our visit on ${day} for “${a.work.title}” will not be.`
      : `Our visit for “${a.work.title}” is now on ${day} at ${localTime(Date.parse(visit.startAt), ctx.company.timeZone)}.`,
  )
}
