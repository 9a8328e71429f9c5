// The map of a day: sites, routes along the roads, where technicians are; who is nearest; what the positions device tells and is told.
import { saySite } from '../../core/customers/saySite'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { skillsOn } from '../../core/dispatch/skillsOn'
import { territoryOf } from '../../core/customers/territoryOf'
import { notFound } from '../../core/errors/LedgerError'
import { dayBounds, localTime } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { siteById } from '../customers/places.queries'
import { waitsAt } from '../waiting/at'
import type { Ctx } from '../http/context'
import { emit } from '../events/events'
import { territories } from '../settings/queries'
import { dayFacts, type DayFacts } from './dayFacts'
import { driver, groundNow, wayFinder, type Way } from './drives'
import { forecastDay, isFresh, seenOn, type Seen } from './forecast'
import { keepPosition, placedSites, positionsNow } from './roads.queries'
import { technicians, type Technician } from './queries'
import { unplaced, visitsBetween, type BoardVisit } from './board.queries'

const iso = (ms: number) => new Date(ms).toISOString()
const OPEN = ['driving', 'on_site', 'paused']

async function dayOf(ctx: Ctx, date: string, seen?: Seen) {
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const [people, visits] = [await technicians(ctx.tx), await visitsBetween(ctx.tx, from, to)]
  return {
    people,
    visits,
    forecast: forecastDay(ctx, people, visits, {
      drive: await driver(ctx.tx),
      ...(seen ? { seen } : {}),
    }),
  }
}
const ownVisits = (visits: readonly BoardVisit[], id: string) =>
  visits.filter((v) => v.technicianId === id)

type Day = Awaited<ReturnType<typeof dayOf>>
type MapTechnician = Answer<'mapDay'>['technicians'][number]

/** Stops of a day that stand somewhere on the map, in their order. */
const stopsOf = ({ visits, forecast }: Day, id: string): MapTechnician['stops'] =>
  ownVisits(visits, id).flatMap((v) => {
    const at = placeOf(v)
    const atRisk = forecast.visits.get(v.id)?.atRisk ?? false
    return at ? [{ visitId: v.id, ...at, state: v.state, atRisk }] : []
  })
/** The day's drives: from where it starts, from stop to stop, home. */
function routeOf(
  p: Technician,
  stops: MapTechnician['stops'],
  way: (a: Place, b: Place) => Way,
): MapTechnician['route'] {
  const home = p.end && stops.length ? [p.end] : []
  const chain = [...(p.start ? [p.start] : []), ...stops, ...home]
  return chain.slice(1).flatMap((to, i) => way(chain[i]!, to))
}
function positionOn(
  ctx: Ctx,
  date: string,
  last: { at: string } & Place,
): MapTechnician['position'] {
  const { lat, lon, at } = last
  return date === ctx.today ? { lat, lon, at, old: !isFresh(ctx, last) } : null
}
export async function mapDay(ctx: Ctx, wanted?: string): Promise<Answer<'mapDay'>> {
  const date = wanted || ctx.today
  const day = await dayOf(ctx, date, await seenOn(ctx, date))
  const { people } = day
  const [areas, sites, waiting, way] = [
    await territories(ctx.tx),
    await placedSites(ctx.tx),
    await unplaced(ctx.tx, waitsAt(ctx).sql),
    await wayFinder(ctx.tx),
  ]
  const seen = await seenNow(ctx)
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
      place: saySite({ ...s, name: '' }),
      territoryId: territoryOf(s.postcode, areas)?.id ?? null,
      lat: s.lat,
      lon: s.lon,
    })),
    technicians: people.map((p) => {
      const stops = stopsOf(day, p.id)
      const last = seen.get(p.id)
      const { id, name, start, end } = p
      const position = last ? positionOn(ctx, date, last) : null
      return { id, name, start, end, stops, route: routeOf(p, stops, way), position }
    }),
    waiting: waiting.flatMap(({ id, siteId, title, customer, lat, lon }) =>
      lat === null ? [] : [{ visitId: id, siteId, title, customer, lat, lon: lon! }],
    ),
    nowhere: waiting.filter((v) => v.lat === null).length,
  }
}
const seenNow = async (ctx: Ctx): Promise<Seen> =>
  new Map((await positionsNow(ctx.tx)).map((p) => [p.personId, p]))
/** Where somebody is taken to be: told by the device not long ago, else at the site they are busy at or came from, else where they start. */
function whereabouts(
  ctx: Ctx,
  p: Technician,
  visits: readonly BoardVisit[],
  seen: Map<string, { at: string; lat: number; lon: number }>,
): { place: Place | null; said: string } {
  const told = seen.get(p.id)
  if (told && isFresh(ctx, told))
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
type Near = Answer<'nearest'>['items'][number]
/** What somebody is about at this moment, in words. */
function aboutNow(
  ctx: Ctx,
  own: readonly BoardVisit[],
  away: { reason: string } | undefined,
): string {
  const say = (at: string) => localTime(Date.parse(at), ctx.company.timeZone)
  const busy = own.find((v) => OPEN.includes(v.state))
  const next = own.find((v) => v.state === 'planned')
  const about = []
  if (busy) about.push(`${busy.state === 'driving' ? 'on the way to' : 'at'} ${busy.customer}`)
  if (away) about.push(`off: ${away.reason}`)
  if (next) {
    const late = Date.parse(next.startAt!) < ctx.now ? 'late for' : 'next'
    const promise = next.promiseFrom ? `, promised ${next.promiseFrom}–${next.promiseTo}` : ''
    about.push(`${late} ${say(next.startAt!)} ${next.customer}${promise}`)
  }
  return about.join('; ') || 'nothing more today'
}
const awayNow = (ctx: Ctx, facts: DayFacts, p: Technician) =>
  facts.blocks(p, ctx.today).find((b) => b.kind !== 'held' && b.from <= ctx.now && ctx.now < b.to)
const isNumber = (n: number | undefined) => n !== undefined
const soonest = (a: Near, b: Near) =>
  Number(b.works) - Number(a.works) ||
  Date.parse(a.arriveAt) - Date.parse(b.arriveAt) ||
  a.driveSeconds - b.driveSeconds
export async function nearest(ctx: Ctx, body: Body<'nearest'>): Promise<Answer<'nearest'>> {
  const site = await siteById(ctx.tx, body.siteId)
  if (!site) throw notFound('site')
  const to = placeOf(site)
  const { people, visits, forecast } = await dayOf(ctx, ctx.today, await seenOn(ctx, ctx.today))
  const [facts, areas, drive] = [
    await dayFacts(ctx, ctx.today, 1),
    await territories(ctx.tx),
    await driver(ctx.tx),
  ]
  const seen = await seenNow(ctx)
  const territory = territoryOf(site.postcode, areas)
  const near = (p: Technician): Near => {
    const own = ownVisits(visits, p.id)
    const busy = own.find((v) => OPEN.includes(v.state))
    const here = whereabouts(ctx, p, visits, seen)
    // Whoever is busy leaves from where the visit is, once it is done.
    const place = (busy && placeOf(busy)) ?? here.place
    const shift = facts.shift(p, ctx.today)
    const away = awayNow(ctx, facts, p)
    const doneAt = busy && forecast.visits.get(busy.id)!.finishAt
    const freeAt = Math.max(ctx.now, ...[doneAt, away?.to, shift?.from].filter(isNumber))
    const driveSeconds = place && to ? drive(place, to) : 0
    return {
      technicianId: p.id,
      name: p.name,
      driveSeconds,
      from: busy ? `from ${busy.customer}` : here.said,
      freeAt: iso(freeAt),
      arriveAt: iso(freeAt + driveSeconds * 1000),
      works: shift !== null && freeAt < shift.to,
      lacks: body.skills.filter((s) => !skillsOn(p, ctx.today).includes(s)),
      foreign: isForeign(p, territory),
      now: aboutNow(ctx, own, away),
    }
  }
  const alone = people.filter((p) => p.goesWith === null)
  return { items: alone.map(near).sort(soonest) }
}
/** Whoever has territories serves those; whoever has none serves all. */
const isForeign = (p: Technician, of: { id: string } | null | undefined) =>
  Boolean(of) && p.territoryIds.length > 0 && !p.territoryIds.includes(of!.id)
/** For the device that plays the technicians' vans: whoever has set off drives, everybody else stands where they are. */
export async function positionTrips(ctx: Ctx): Promise<Answer<'positionTrips'>> {
  // As planned: what the device tells must not be what it is told.
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
