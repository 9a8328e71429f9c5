// Openings: where a visit fits into the next days, while the caller is on the line.
import { openings as find, type OpeningDay, type OpeningWish } from '../../core/dispatch/openings'
import { rankOpenings } from '../../core/dispatch/rankOpenings'
import { territoryOf } from '../../core/customers/territoryOf'
import { invalid } from '../../core/errors/LedgerError'
import { localTime, localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { technicianDays } from './days'
import { driver } from './drives'
import { knownTo } from './queries'

export async function openings(ctx: Ctx, body: Body<'openings'>): Promise<Answer<'openings'>> {
  const zone = ctx.company.timeZone
  const first = body.from && body.from > ctx.today ? body.from : ctx.today
  if (body.windowFrom && body.windowTo && body.windowTo < body.windowFrom)
    throw invalid('windowTo', 'The window ends before it begins.')
  const site = body.siteId ? await siteById(ctx.tx, body.siteId) : null
  const areas = await territories(ctx.tx)
  const territory = body.territory || (site ? (territoryOf(site.postcode, areas)?.name ?? '') : '')
  const all = await technicianDays(ctx, first, body.days, body)
  const days = body.servedBy ? all.filter((d) => d.serves.includes(body.servedBy)) : all
  const wish: OpeningWish = {
    durationSeconds: body.durationSeconds,
    place: site?.lat != null ? { lat: site.lat, lon: site.lon! } : null,
    skills: body.skills,
    territory,
    after: ctx.now,
    part: body.part,
    mayMove: body.mayMove,
    known: body.customerId ? await knownTo(ctx.tx, body.customerId) : [],
  }
  const drive = await driver(ctx.tx)
  if (wish.place)
    drive.around(
      wish.place,
      days
        .flatMap((d) => [d.start, d.end, ...d.stops.map((s) => s.place)])
        .filter((p) => p !== null),
    )
  const say = (ms: number) => localTime(ms, zone)
  // A wished window is a time of day: on each day it is another stretch of time.
  const found =
    body.windowFrom || body.windowTo
      ? byDate(days).flatMap(([date, some]) =>
          find(
            some,
            {
              ...wish,
              window: {
                from: localToInstant(date, body.windowFrom ?? '00:00', zone),
                to: localToInstant(date, body.windowTo ?? '23:59', zone),
              },
            },
            drive,
            say,
          ),
        )
      : find(days, wish, drive, say)
  const ranked = rankOpenings(found, body.order)
  const names = new Map(days.map((d) => [d.technicianId, d.name]))
  return {
    placeKnown: wish.place !== null,
    territory,
    total: ranked.length,
    items: ranked.slice(0, body.limit).map((o) => ({
      technicianId: o.technicianId,
      technician: names.get(o.technicianId)!,
      date: o.date,
      startAt: new Date(o.startAt).toISOString(),
      ...promised(o.startAt, zone),
      extraDriveSeconds: o.extraDriveSeconds,
      dayEndAt: new Date(o.dayEndAt).toISOString(),
      overtimeSeconds: Math.round(o.overtimeSeconds),
      sound: !o.overCapacity && !o.foreign && o.lacks.length === 0,
      score: Math.round(o.score),
      reasons: o.reasons.map((r) => ({ code: r.code, text: r.text.slice(0, 290) })),
      moves: o.moved.map((m) => ({
        visitId: m.id,
        customer: m.label,
        startAt: new Date(m.startAt).toISOString(),
      })),
    })),
  }
}
const byDate = (days: OpeningDay[]): [string, OpeningDay[]][] =>
  [...new Set(days.map((d) => d.date))].map((date) => [date, days.filter((d) => d.date === date)])
/** The window told to the customer: two hours from the full hour in which the visit begins (common practice of the trade). */
function promised(startAt: number, zone: string): { promiseFrom: string; promiseTo: string } {
  const hour = Number(localTime(startAt, zone).slice(0, 2))
  const text = (h: number) => `${String(Math.min(23, h)).padStart(2, '0')}:00`
  return { promiseFrom: text(hour), promiseTo: hour >= 22 ? '23:59' : text(hour + 2) }
}
