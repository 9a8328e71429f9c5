// A technician's visits as a calendar that others programs may read, by a private link.
import { personFacts } from './facts'
import { randomBytes } from 'node:crypto'
import { notFound } from '../../core/errors/LedgerError'
import { writeIcs } from '../../core/formats/ics'
import { DAY } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import { hashToken } from '../access/session'
import { signedIn, type Ctx } from '../http/context'
import { Raw } from '../http/route'
import { record } from '../http/queries'
import { feedVisit, feedVisits, personByFeed, setFeed, type FeedVisit } from './setUp.queries'
import { technicianById } from './queries'
import { config } from '../config'

/** A new link; only its hash is kept, and the one before ends. Technicians make their own. */
export async function newCalendar(ctx: Ctx, id: string): Promise<Answer<'newCalendar'>> {
  const me = signedIn(ctx)
  const person = await technicianById(ctx.tx, id)
  if (!person || (me.role === 'technician' && me.id !== id)) throw notFound('technician')
  const token = randomBytes(24).toString('base64url')
  await setFeed(ctx.tx, id, hashToken(token))
  const fact = personFacts.calendarMade({ person: person.name })
  await record(ctx, { subject: 'person', id, fact })
  return {
    url: `${config.publicUrl}/api/v1/public/calendars/${token}.ics`,
  }
}
const asEvent = (v: FeedVisit) => {
  const startAt = Date.parse(v.startAt)
  return {
    uid: `${v.id}@open-ledger`,
    startAt,
    endAt: startAt + v.durationSeconds * 1000,
    changedAt: Date.parse(v.createdAt),
    sequence: v.version,
    title: `${v.title}, ${v.customer}`,
    place: [v.site, v.line1, v.town].filter(Boolean).join(', '),
    cancelled: v.state === 'cancelled',
    ...(v.lat === null ? {} : { at: { lat: v.lat, lon: v.lon! } }),
  }
}
/** Two weeks back and sixty days on. No money and nothing that is for the office only. */
export async function calendar(ctx: Ctx, token: string): Promise<Raw> {
  const person = await personByFeed(ctx.tx, hashToken(token))
  if (!person) throw notFound('calendar at this address; the link may have ended')
  const visits = await feedVisits(ctx.tx, person.id, ctx.now - 14 * DAY, ctx.now + 60 * DAY)
  return new Raw(
    'text/calendar; charset=utf-8',
    writeIcs(
      `${person.name}, ${ctx.company.name}`,
      visits.map((v) => ({
        ...asEvent(v),
        text: [
          v.number,
          v.problem,
          v.promiseFrom && `Promised ${v.promiseFrom}–${v.promiseTo}`,
          v.accessNote,
          v.contact.trim() && `Speak to ${v.contact.trim()}`,
        ]
          .filter(Boolean)
          .join('\n'),
      })),
    ),
    'visits.ics',
  )
}
/** One visit as a request to take part. It leaves the firm: the access note stays here. */
export async function writeInvitation(
  ctx: Ctx,
  visitId: string,
  to: readonly string[],
): Promise<{ method: 'REQUEST' | 'CANCEL'; content: string }> {
  const visit = await feedVisit(ctx.tx, visitId)
  if (!visit) throw notFound('visit with a slot')
  const method = visit.state === 'cancelled' ? 'CANCEL' : 'REQUEST'
  return {
    method,
    content: writeIcs(
      ctx.company.name,
      [
        {
          ...asEvent(visit),
          changedAt: ctx.now,
          text: [visit.number, visit.title, ctx.company.phone && `Questions: ${ctx.company.phone}`]
            .filter(Boolean)
            .join('\n'),
        },
      ],
      {
        method,
        organizer: { name: ctx.company.name, mail: ctx.company.email || 'office@localhost' },
        attendees: to,
      },
    ),
  }
}
