// Whether a visit may stand at a place, and what is said against it.
import { sayDay } from '../../core/time/sayDay'
import { invalid, LedgerError } from '../../core/errors/LedgerError'
import { skillsOn } from '../../core/dispatch/skillsOn'
import { SOFT_WARNINGS, visitWarnings, type VisitWarning } from '../../core/dispatch/visitWarnings'
import { dayBounds, localDate, localTime } from '../../core/time/zone'
import { holdsPromise, type VisitPromise } from '../../core/visits/visitPromise'
import { halfDayCapacity } from '../../core/dispatch/halfDayCapacity'
import { territoryOf } from '../../core/customers/territoryOf'
import { siteById } from '../customers/places.queries'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { dayFacts, heldAgainst, takenBy, type DayFacts } from './dayFacts'
import { crewIds, stopsBetween } from './board.queries'
import { technicianById, type Technician } from './queries'

export interface Placement {
  visitId: string | null
  technicianId: string
  crewIds?: string[]
  startAt: number
  durationSeconds: number
  /** what is promised of it, also where nothing but a day is */
  promise?: VisitPromise | null
  /** a visit that leaves its place to this one */
  insteadOf?: string
  siteId?: string | null
  skills?: string[]
  callId?: string | null
}
const first = (name: string) => name.split(' ')[0]!
type Stop = Awaited<ReturnType<typeof stopsBetween>>[number]
/** Where else somebody is on that day, as it is said to whoever would send them. */
function elsewhere(ctx: Ctx, visits: readonly Stop[], personId: string) {
  const zone = ctx.company.timeZone
  return visits
    .filter((o) => o.technicianId === personId || crewIds(o).includes(personId))
    .map((o) => ({
      id: o.id,
      ...takenBy(o, ctx.now),
      label: `${o.customer}, ${localTime(Date.parse(o.startAt), zone)}`,
    }))
}
/** How many visits that person takes in that half of the day, and has there already. */
function halfOf(
  ctx: Ctx,
  facts: DayFacts,
  of: { person: Technician; visits: readonly Stop[]; startAt: number; date: string },
) {
  const { person, visits, startAt, date } = of
  const noon = facts.at(date, '12:00')
  const name = startAt < noon ? 'morning' : 'afternoon'
  const away = facts.blocks(person, date).filter((b) => b.kind === 'off' || b.kind === 'entry')
  const capacity = halfDayCapacity(facts.hours(person, date), away, noon)[name]
  const own = visits.filter((v) => v.technicianId === person.id || crewIds(v).includes(person.id))
  const taken = own.filter((v) => Date.parse(v.startAt) < noon === startAt < noon).length
  return { name, capacity, taken: taken + 1 }
}
/** What only the one who leads is asked: the skills, the territory. */
async function leading(ctx: Ctx, person: Technician, p: Placement, date: string) {
  return {
    ...(await territoryFacts(ctx, person, p.siteId)),
    ...(p.skills ? { wanted: p.skills } : {}),
    skills: skillsOn(person, date),
    licences: person.licences.filter((l) => l.until < date),
  }
}
export async function checkPlacement(ctx: Ctx, p: Placement): Promise<VisitWarning[]> {
  const zone = ctx.company.timeZone
  const date = localDate(p.startAt, zone)
  const facts = await dayFacts(ctx, date, 1)
  const { from, to } = dayBounds(date, zone)
  const gone = [p.visitId, p.insteadOf]
  const visits = (await stopsBetween(ctx.tx, from, to)).filter((v) => !gone.includes(v.id))
  const endAt = p.startAt + p.durationSeconds * 1000
  const warnings: VisitWarning[] = []
  const today = dayBounds(ctx.today, zone)
  // Whoever goes along must be free as well; the promise, the skills and the territory are a matter of the one who leads.
  for (const [i, id] of [p.technicianId, ...(p.crewIds ?? [])].entries()) {
    const leads = i === 0
    const person = await technicianById(ctx.tx, id)
    if (!person)
      throw invalid(leads ? 'technicianId' : `crewIds[${i - 1}]`, 'This person cannot be booked.')
    const shift = facts.shift(person, date)
    const day = {
      working: shift ? [shift] : [],
      timeOff: facts.blocks(person, date),
      others: elsewhere(ctx, visits, id),
      half: halfOf(ctx, facts, { person, visits, startAt: p.startAt, date }),
      ...(leads
        ? { now: ctx.now, today: today.from, ...(await leading(ctx, person, p, date)) }
        : {}),
    }
    const place = { technicianId: id, startAt: p.startAt, endAt }
    const say = { name: first(person.name), day: (on: string) => sayDay(on, ctx.company.locale) }
    const isBroken = leads && !holdsPromise(p.promise ?? null, p.startAt, zone)
    warnings.push(...visitWarnings(place, day, isBroken ? p.promise! : null, say))
  }
  const held = await heldByOthers(ctx, { ...p, callId: p.callId ?? null })
  return held ? [...warnings, { code: 'held', text: `this time is held by ${held}` }] : warnings
}
/** The same, asked before anything is kept; the window is one of that day. */
export function checkAsked(ctx: Ctx, body: Body<'checkPlacement'>): Promise<VisitWarning[]> {
  const { promiseFrom: from, promiseTo: to, ...place } = body
  const startAt = Date.parse(body.startAt)
  const date = localDate(startAt, ctx.company.timeZone)
  return checkPlacement(ctx, { ...place, startAt, promise: from && to ? { date, from, to } : null })
}
/** Who else holds that time for a caller at present, in words; empty when nobody does. */
export async function heldByOthers(
  ctx: Ctx,
  p: { callId: string | null; technicianId: string; startAt: number; durationSeconds: number },
): Promise<string> {
  const held = (await heldAgainst(ctx, p.callId)).find(
    (h) =>
      h.personId === p.technicianId &&
      h.from < p.startAt + p.durationSeconds * 1000 &&
      p.startAt < h.to,
  )
  return held ? `${held.by}, for ${held.summary || 'a caller'}` : ''
}
async function territoryFacts(
  ctx: Ctx,
  person: Technician,
  siteId?: string | null,
): Promise<Pick<Parameters<typeof visitWarnings>[1], 'nowhere' | 'territory' | 'serves'>> {
  const site = siteId ? await siteById(ctx.tx, siteId) : null
  if (!site) return {}
  const areas = await territories(ctx.tx)
  return {
    nowhere: !site.line1 && !site.town,
    territory: territoryOf(site.postcode, areas)?.name,
    serves: areas.filter((a) => person.territoryIds.includes(a.id)).map((a) => a.name),
  }
}
/** Refuses a placement with warnings unless someone overrides them; the warnings are in the answer and in the trail. */
export async function mayPlace(
  ctx: Ctx,
  warnings: VisitWarning[],
  override: boolean,
  /** a promise that is broken there, and what could be promised instead */
  asked: { promise: VisitPromise; proposed: VisitPromise } | null = null,
): Promise<void> {
  const hard = warnings.filter((w) => !SOFT_WARNINGS.includes(w.code))
  if (hard.length && !override)
    throw new LedgerError(
      'placement_warning',
      `${hard.map((w) => w.text).join('; ')}.`.replace(/^./, (c) => c.toUpperCase()),
      { extra: { warnings, asked } },
    )
}
