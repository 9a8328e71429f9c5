// A visit as the schedule shows it: who, where, promised when, how it will run, what does not fit.
import { saySite } from '../../core/customers/saySite'
import { ended, skillsOn } from '../../core/dispatch/skillsOn'
import { territoryOf } from '../../core/customers/territoryOf'
import { minorToDecimal } from '../../core/money/formatMinor'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localToInstant } from '../../core/time/zone'
import { sayAgo } from '../../core/time/sayAgo'
import { isMissed, whereToldStands } from '../../core/waiting/whereItStands'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { promiseOf, toldOf } from '../visits/visits.queries'
import { waitsAt } from '../waiting/at'
import { boardVisit, crewIds, skillsOfVisits, type BoardVisit } from './board.queries'
import type { Forecast } from './forecast'
import { technicians } from './queries'

export type Visit = Answer<'placeVisit'>
const iso = (ms: number) => new Date(ms).toISOString()

type Area = Awaited<ReturnType<typeof territories>>[number]
type Person = Awaited<ReturnType<typeof technicians>>[number]
/** What is asked for once for all visits that are shown together. */
interface Around {
  ctx: Ctx
  areas: Area[]
  wants: Awaited<ReturnType<typeof skillsOfVisits>>
  people: ReadonlyMap<string, Person>
  forecast: ReadonlyMap<string, Forecast>
}
/** What does not fit is said, never hidden: somebody may well have meant it so. */
function misfitOf(
  { today, company }: Ctx,
  v: BoardVisit,
  { person, territory, skills }: { person: Person; territory: Area | null; skills: string[] },
): string {
  const known = person.territoryIds
  const foreign = territory && known.length > 0 && !known.includes(territory.id)
  const date = v.startAt
    ? localDate(Date.parse(v.startAt), company.timeZone)
    : (v.promiseDate ?? today)
  const lacking = skills.filter((s) => !skillsOn(person, date).includes(s))
  const over = lacking.flatMap((s) => ended(person, s, date) ?? [])
  return [
    foreign && `${territory.name} is not served by ${person.name.split(' ')[0]}`,
    lacking.length > 0 && `wants ${lacking.join(', ')}`,
    ...over.map((l) => `licence for ${l.skill} ended on ${sayDay(l.until, company.locale)}`),
  ]
    .filter(Boolean)
    .join('; ')
}
/** How the visit will run, as it is foreseen; nothing is said of one that has no place in a day. */
function runPart(p: Forecast | undefined) {
  if (!p) return { driveSeconds: 0, arriveAt: null, finishAt: null, atRisk: false, lateSeconds: 0 }
  const { driveSeconds, atRisk, lateSeconds } = p
  return { driveSeconds, arriveAt: iso(p.arriveAt), finishAt: iso(p.finishAt), atRisk, lateSeconds }
}
/** What is promised, what the customer was told, and whether they have to be told anew. */
function promisePart(ctx: Ctx, v: BoardVisit) {
  const { company } = ctx
  const { promiseDate, promiseFrom, promiseTo } = v
  const told = toldOf(v)
  const at = (time: string | null) =>
    promiseDate && time ? iso(localToInstant(promiseDate, time, company.timeZone)) : null
  return {
    promiseDate,
    promiseFrom,
    promiseTo,
    promiseStart: at(promiseFrom),
    promiseEnd: at(promiseTo),
    told,
    toTell:
      'place' in whereToldStands({ state: v.state, told, promise: promiseOf(v) }, waitsAt(ctx).at),
  }
}
function shape(v: BoardVisit, { ctx, areas, wants, people, forecast }: Around): Visit {
  const skills = [...(wants.get(v.id) ?? [])]
  const territory = territoryOf(v.postcode, areas)
  const person = v.technicianId ? people.get(v.technicianId) : undefined
  const { id, version, workOrderId, number, title, kind, customer, siteId, town } = v
  const { technicianId, startAt, durationSeconds, state, locked, note } = v
  const { contact, accessNote, officeNote, lat, lon } = v
  return {
    ...{ id, version, workOrderId, number, title, kind, customer, siteId, town },
    ...{ technicianId, startAt, durationSeconds, state, locked, note },
    ...{ contact, accessNote, officeNote, lat, lon },
    place: saySite({ name: v.site, line1: v.line1 }),
    ...promisePart(ctx, v),
    ...runPart(forecast.get(v.id)),
    net: v.net ? minorToDecimal(v.net, ctx.company.currency) : '',
    waiting: waiting(ctx, v, person),
    crewIds: crewIds(v),
    alongIds: [],
    quote: v.quote ?? '',
    territory: territory?.name ?? '',
    skills,
    misfit: person ? misfitOf(ctx, v, { person, territory, skills }) : '',
  }
}
/** All of them at once: what they want of skills and where they lie is asked for once. */
export async function shapeVisits(
  ctx: Ctx,
  rows: readonly BoardVisit[],
  forecast: ReadonlyMap<string, Forecast> = new Map(),
): Promise<Visit[]> {
  const ids = rows.map((r) => r.id)
  const around: Around = {
    ctx,
    areas: await territories(ctx.tx),
    wants: await skillsOfVisits(ctx.tx, ids),
    people: new Map((await technicians(ctx.tx)).map((p) => [p.id, p])),
    forecast,
  }
  return rows.map((v) => shape(v, around))
}
export const shapeVisit = async (ctx: Ctx, id: string): Promise<Visit> =>
  (await shapeVisits(ctx, [(await boardVisit(ctx.tx, id))!]))[0]!
function promisedFor({ today, company }: Ctx, date: string | null): string {
  if (!date) return 'no day promised'
  if (date === today) return 'promised today'
  return `promised for ${sayDay(date, company.locale)}${date < today ? ', which has passed' : ''}`
}
const PROPOSED = {
  come_again: 'come again',
  ring: 'ring them first',
  give_up: 'give it up?',
} as const
/** Why a visit without a place waits for one. */
function wantsPlace(ctx: Ctx, v: BoardVisit): string {
  if (v.again === 'no_access') {
    const proposed = [v.nextStep && PROPOSED[v.nextStep], v.note].filter(Boolean).join(', ')
    return `Nobody let us in${proposed && `: ${proposed}`}`
  }
  if (v.note) return `A further visit: ${v.note}`
  if (v.again) return 'Its visit was cancelled'
  return `Called ${sayAgo(ctx.now - Date.parse(v.createdAt))} ago`
}
/** Why a visit waits for a place; nothing of one that has it. */
function waiting(ctx: Ctx, v: BoardVisit, person: Person | undefined): string {
  const { at } = waitsAt(ctx)
  const from = v.startAt === null ? null : Date.parse(v.startAt)
  const endsAt = from === null ? null : from + v.durationSeconds * 1000
  const missed = isMissed({ state: v.state, endsAt }, at.missedBefore)
  if (from && person && !missed) return ''
  const by = person ? ` by ${person.name.split(' ')[0]}` : ''
  const why = missed ? `Was not begun${by} on ${at.day(at.dateOf(from!))}` : wantsPlace(ctx, v)
  return `${why}, ${promisedFor(ctx, v.promiseDate)}`.slice(0, 200)
}
