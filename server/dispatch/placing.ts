// Whether a visit may stand at a place, and what is said against it.
import { sayDay } from '../../core/time/sayDay'
import { invalid, LedgerError } from '../../core/errors/LedgerError'
import { skillsOn } from '../../core/dispatch/skillsOn'
import { SOFT_WARNINGS, visitWarnings, type VisitWarning } from '../../core/dispatch/visitWarnings'
import { dayBounds, localDate, localTime, localToInstant } from '../../core/time/zone'
import { territoryOf } from '../../core/customers/territoryOf'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { dayFacts, heldAgainst, takenBy } from './dayFacts'
import { crewIds, stopsBetween } from './board.queries'
import { technicianById, type Technician } from './queries'

export interface Placement {
  visitId: string | null
  technicianId: string
  crewIds?: string[]
  startAt: number
  durationSeconds: number
  promiseFrom?: string | null
  promiseTo?: string | null
  promiseDate?: string | null
  siteId?: string | null
  skills?: string[]
  callId?: string | null
}
const first = (name: string) => name.split(' ')[0]!
/** The promised window as instants, where one was promised. */
function promiseOf(p: Placement, date: string, zone: string) {
  if (!p.promiseFrom || !p.promiseTo) return null
  const on = p.promiseDate ?? date
  return {
    from: localToInstant(on, p.promiseFrom, zone),
    to: localToInstant(on, p.promiseTo, zone),
  }
}
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
  const visits = (await stopsBetween(ctx.tx, from, to)).filter((v) => v.id !== p.visitId)
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
      ...(leads ? { today: today.from, ...(await leading(ctx, person, p, date)) } : {}),
    }
    const place = { technicianId: id, startAt: p.startAt, endAt }
    const say = { name: first(person.name), day: (on: string) => sayDay(on, ctx.company.locale) }
    warnings.push(...visitWarnings(place, day, leads ? promiseOf(p, date, zone) : null, say))
  }
  const held = await heldByOthers(ctx, { ...p, callId: p.callId ?? null })
  return held ? [...warnings, { code: 'held', text: `this time is held by ${held}` }] : warnings
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
): Promise<{ territory?: string | undefined; serves?: string[] }> {
  const site = siteId ? await siteById(ctx.tx, siteId) : null
  if (!site) return {}
  const areas = await territories(ctx.tx)
  return {
    territory: territoryOf(site.postcode, areas)?.name,
    serves: areas.filter((a) => person.territoryIds.includes(a.id)).map((a) => a.name),
  }
}
/** Refuses a placement with warnings unless someone overrides them; the warnings are in the answer and in the trail. */
export async function mayPlace(
  ctx: Ctx,
  warnings: VisitWarning[],
  override: boolean,
): Promise<void> {
  const hard = warnings.filter((w) => !SOFT_WARNINGS.includes(w.code))
  if (hard.length && !override)
    throw new LedgerError(
      'placement_warning',
      `${hard.map((w) => w.text).join('; ')}.`.replace(/^./, (c) => c.toUpperCase()),
      { extra: { warnings } },
    )
}
