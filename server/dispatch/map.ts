// The map of a day: sites, routes along the roads, where technicians are; who is nearest; what the positions device tells and is told.
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { skillsOn } from '../../core/dispatch/skillsOn'
import { territoryOf } from '../../core/customers/territoryOf'
import { notFound } from '../../core/errors/LedgerError'
import { dayBounds, localTime } from '../../core/time/zone'
import { MINUTE } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { emit } from '../events/events'
import { territories } from '../settings/queries'
import { forecastDay } from './board'
import { dayFacts } from './dayFacts'
import { driver, groundNow, wayFinder, type Way } from './drives'
import { keepPosition, placedSites, positionsNow } from './roads.queries'
import { technicians, type Technician } from './queries'
import { unplaced, visitsBetween, type BoardVisit } from './board.queries'

/** A position that was told longer ago says where somebody was, not where they are (our own rule). */
const FRESH_MS = 20 * MINUTE
const iso = (ms: number) => new Date(ms).toISOString()
const OPEN = ['driving', 'on_site', 'paused']

async function dayOf(ctx: Ctx, date: string) {
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const [people, visits] = [await technicians(ctx.tx), await visitsBetween(ctx.tx, from, to)]
  return { people, visits, forecast: forecastDay(ctx, people, visits, await driver(ctx.tx)) }
}
const ownVisits = (visits: readonly BoardVisit[], id: string) =>
  visits.filter((v) => v.technicianId === id)

export async function mapDay(ctx: Ctx, wanted?: string): Promise<Answer<'mapDay'>> {
  const date = wanted || ctx.today
  const { people, visits, forecast } = await dayOf(ctx, date)
  const [areas, sites, waiting, way, seen] = [
    await territories(ctx.tx),
    await placedSites(ctx.tx),
    await unplaced(ctx.tx, ctx.today),
    await wayFinder(ctx.tx),
    new Map((await positionsNow(ctx.tx)).map((p) => [p.personId, p])),
  ]
  return {
    date,
    roadsId: (await groundNow(ctx.tx)).id,
    territories: areas.map((a) => ({
      id: a.id,
      name: a.name,
      people: people.filter((p) => p.territoryIds.includes(a.id)).map((p) => p.name),
    })),
    sites: sites.map((s) => ({
      id: s.id,
      customerId: s.customerId,
      customer: s.customer,
      place: [s.line1, s.town].filter(Boolean).join(', '),
      territoryId: territoryOf(s.postcode, areas)?.id ?? null,
      lat: s.lat,
      lon: s.lon,
    })),
    technicians: people.map((p) => {
      const stops = ownVisits(visits, p.id).flatMap((v) => {
        const at = placeOf(v)
        return at
          ? [
              {
                visitId: v.id,
                ...at,
                state: v.state,
                atRisk: forecast.visits.get(v.id)?.atRisk ?? false,
              },
            ]
          : []
      })
      const chain = [
        ...(p.start ? [p.start] : []),
        ...stops,
        ...(p.end && stops.length ? [p.end] : []),
      ]
      const last = seen.get(p.id)
      return {
        id: p.id,
        name: p.name,
        start: p.start,
        end: p.end,
        stops,
        route: chain.slice(1).flatMap((to, i): Way => way(chain[i]!, to)),
        position:
          last && date === ctx.today
            ? {
                lat: last.lat,
                lon: last.lon,
                at: last.at,
                old: ctx.now - Date.parse(last.at) > FRESH_MS,
              }
            : null,
      }
    }),
    waiting: waiting.flatMap((v) =>
      v.lat === null
        ? []
        : [
            {
              visitId: v.id,
              siteId: v.siteId,
              title: v.title,
              customer: v.customer,
              lat: v.lat,
              lon: v.lon!,
            },
          ],
    ),
    nowhere: waiting.filter((v) => v.lat === null).length,
  }
}
/** Where somebody is taken to be: told by the device not long ago, else at the site they are busy at or came from, else where they start. */
function whereabouts(
  ctx: Ctx,
  p: Technician,
  visits: readonly BoardVisit[],
  seen: Map<string, { at: string; lat: number; lon: number }>,
): { place: Place | null; said: string } {
  const told = seen.get(p.id)
  if (told && ctx.now - Date.parse(told.at) <= FRESH_MS)
    return {
      place: { lat: told.lat, lon: told.lon },
      said: `seen at ${localTime(Date.parse(told.at), ctx.company.timeZone)}`,
    }
  const own = ownVisits(visits, p.id)
  const been =
    own.find((v) => ['on_site', 'paused'].includes(v.state)) ??
    own.filter((v) => v.finishedAt).at(-1)
  return been && placeOf(been)
    ? { place: placeOf(been), said: `at ${been.customer}` }
    : { place: p.start, said: p.startsAt === 'yard' ? 'from the yard' : 'from home' }
}
export async function nearest(ctx: Ctx, body: Body<'nearest'>): Promise<Answer<'nearest'>> {
  const site = await siteById(ctx.tx, body.siteId)
  const to = site && placeOf(site)
  if (!site) throw notFound('site')
  const { people, visits, forecast } = await dayOf(ctx, ctx.today)
  const [facts, areas, drive, seen] = [
    await dayFacts(ctx, ctx.today, 1),
    await territories(ctx.tx),
    await driver(ctx.tx),
    new Map((await positionsNow(ctx.tx)).map((p) => [p.personId, p])),
  ]
  const territory = territoryOf(site.postcode, areas)
  const say = (ms: number) => localTime(ms, ctx.company.timeZone)
  const items = people
    .filter((p) => p.goesWith === null)
    .map((p) => {
      const busy = ownVisits(visits, p.id).find((v) => OPEN.includes(v.state))
      const here = whereabouts(ctx, p, visits, seen)
      // Whoever is busy leaves from where the visit is, once it is done.
      const place = busy ? (placeOf(busy) ?? here.place) : here.place
      const shift = facts.shift(p, ctx.today)
      const away = facts
        .blocks(p, ctx.today)
        .find((b) => b.kind !== 'held' && b.from <= ctx.now && ctx.now < b.to)
      const freeAt = Math.max(
        ctx.now,
        busy ? forecast.visits.get(busy.id)!.finishAt : 0,
        away?.to ?? 0,
        shift?.from ?? 0,
      )
      const driveSeconds = place && to ? drive(place, to) : 0
      const next = ownVisits(visits, p.id).find((v) => v.state === 'planned')
      return {
        technicianId: p.id,
        name: p.name,
        driveSeconds,
        from: busy ? `from ${busy.customer}` : here.said,
        freeAt: iso(freeAt),
        arriveAt: iso(freeAt + driveSeconds * 1000),
        works: shift !== null && freeAt < shift.to,
        lacks: body.skills.filter((s) => !skillsOn(p, ctx.today).includes(s)),
        foreign: Boolean(
          territory && p.territoryIds.length && !p.territoryIds.includes(territory.id),
        ),
        now:
          [
            busy && `${busy.state === 'driving' ? 'on the way to' : 'at'} ${busy.customer}`,
            away && `off: ${away.reason}`,
            next &&
              `${Date.parse(next.startAt!) < ctx.now ? 'late for' : 'next'} ${say(Date.parse(next.startAt!))} ${next.customer}${next.promiseFrom ? `, promised ${next.promiseFrom}–${next.promiseTo}` : ''}`,
          ]
            .filter(Boolean)
            .join('; ') || 'nothing more today',
      }
    })
  return {
    items: items.sort(
      (a, b) =>
        Number(b.works) - Number(a.works) ||
        Date.parse(a.arriveAt) - Date.parse(b.arriveAt) ||
        a.driveSeconds - b.driveSeconds,
    ),
  }
}
/** For the device that plays the technicians' vans: whoever has set off drives, everybody else stands where they are. */
export async function positionTrips(ctx: Ctx): Promise<Answer<'positionTrips'>> {
  const { people, visits, forecast } = await dayOf(ctx, ctx.today)
  const way = await wayFinder(ctx.tx)
  return {
    now: iso(ctx.now),
    trips: people
      .filter((p) => p.goesWith === null)
      .flatMap((p) => {
        const own = ownVisits(visits, p.id)
        const at = own.findIndex((v) => v.state === 'driving')
        const came =
          own
            .slice(0, at < 0 ? own.length : at)
            .filter((v) => v.startedAt)
            .map(placeOf)
            .filter((x) => x !== null)
            .at(-1) ?? p.start
        if (!came) return []
        const to = at < 0 ? null : placeOf(own[at]!)
        const from = at < 0 ? ctx.now : Date.parse(own[at]!.setOffAt ?? own[at]!.startAt!)
        return [
          {
            personId: p.id,
            from: iso(from),
            to: iso(to ? forecast.visits.get(own[at]!.id)!.arriveAt : from),
            line: to ? way(came, to) : [[came.lon, came.lat]],
          },
        ]
      }),
  }
}
/** Positions are no acts of a person: they are not in the trail, and the one before is forgotten. */
export async function keepPositions(
  ctx: Ctx,
  body: Body<'positions'>,
): Promise<Answer<'positions'>> {
  for (const p of body.positions)
    await keepPosition(ctx.tx, { ...p, at: Math.min(Date.parse(p.at), ctx.now) })
  emit(ctx.tx, { topic: 'moved', subject: 'position', subjectId: '', workOrderId: null })
  return { ok: true }
}
