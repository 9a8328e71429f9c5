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
export async function checkPlacement(ctx: Ctx, p: Placement): Promise<VisitWarning[]> {
  const zone = ctx.company.timeZone
  const date = localDate(p.startAt, zone)
  const facts = await dayFacts(ctx, date, 1)
  const { from, to } = dayBounds(date, zone)
  const visits = (await stopsBetween(ctx.tx, from, to)).filter((v) => v.id !== p.visitId)
  const promiseDate = p.promiseDate ?? date
  const promise =
    p.promiseFrom && p.promiseTo
      ? {
          from: localToInstant(promiseDate, p.promiseFrom, zone),
          to: localToInstant(promiseDate, p.promiseTo, zone),
        }
      : null
  const warnings: VisitWarning[] = []
  // Whoever goes along must be free as well; the promise, the skills and the territory are a matter of the one who leads.
  for (const [i, id] of [p.technicianId, ...(p.crewIds ?? [])].entries()) {
    const person = await technicianById(ctx.tx, id)
    if (!person)
      throw invalid(i === 0 ? 'technicianId' : `crewIds[${i - 1}]`, 'This person cannot be booked.')
    const shift = facts.shift(person, date)
    warnings.push(
      ...visitWarnings(
        { technicianId: id, startAt: p.startAt, endAt: p.startAt + p.durationSeconds * 1000 },
        {
          working: shift ? [shift] : [],
          timeOff: facts.blocks(person, date),
          ...(i === 0
            ? {
                ...(await territoryFacts(ctx, person, p.siteId)),
                wanted: p.skills,
                skills: skillsOn(person, date),
                licences: person.licences.filter((l) => l.until < date),
              }
            : {}),
          others: visits
            .filter((o) => o.technicianId === id || crewIds(o).includes(id))
            .map((o) => ({
              id: o.id,
              ...takenBy(o, ctx.now),
              label: `${o.customer}, ${localTime(Date.parse(o.startAt), zone)}`,
            })),
        },
        i === 0 ? promise : null,
        { name: first(person.name), day: (on) => sayDay(on, ctx.company.locale) },
      ),
    )
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
