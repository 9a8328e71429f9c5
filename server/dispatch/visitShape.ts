// A visit as the schedule shows it: who, where, promised when, how it will run, what does not fit.
import type { Prediction } from '../../core/dispatch/predictDay'
import { ended, skillsOn } from '../../core/dispatch/skillsOn'
import { territoryOf } from '../../core/customers/territoryOf'
import { minorToDecimal } from '../../core/money/formatMinor'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localToInstant } from '../../core/time/zone'
import { sayAgo } from '../../core/time/sayAgo'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { boardVisit, crewIds, skillsOfVisits, type BoardVisit } from './board.queries'
import { technicians } from './queries'

export type Visit = Answer<'placeVisit'>
export type Forecast = Prediction & { driveSeconds: number }
const iso = (ms: number) => new Date(ms).toISOString()

/** All of them at once: what they want of skills and where they lie is asked for once. */
export async function shapeVisits(
  ctx: Ctx,
  rows: readonly BoardVisit[],
  forecast: ReadonlyMap<string, Forecast> = new Map(),
): Promise<Visit[]> {
  const zone = ctx.company.timeZone
  const [areas, wants, people] = [
    await territories(ctx.tx),
    await skillsOfVisits(
      ctx.tx,
      rows.map((r) => r.id),
    ),
    new Map((await technicians(ctx.tx)).map((p) => [p.id, p])),
  ]
  return rows.map((v) => {
    const p = forecast.get(v.id)
    const promise = (at: string | null) =>
      v.promiseDate && at ? iso(localToInstant(v.promiseDate, at, zone)) : null
    const skills = [...(wants.get(v.id) ?? [])]
    const territory = territoryOf(v.postcode, areas)
    const person = v.technicianId ? people.get(v.technicianId) : undefined
    // What does not fit is said, never hidden: somebody may well have meant it so.
    const foreign =
      person &&
      territory &&
      person.territoryIds.length > 0 &&
      !person.territoryIds.includes(territory.id)
    const date = v.startAt ? localDate(Date.parse(v.startAt), zone) : (v.promiseDate ?? ctx.today)
    const lacking = person ? skills.filter((s) => !skillsOn(person, date).includes(s)) : []
    const over = person ? lacking.flatMap((s) => ended(person, s, date) ?? []) : []
    const misfit = [
      foreign && `${territory.name} is not served by ${person.name.split(' ')[0]}`,
      lacking.length > 0 && `wants ${lacking.join(', ')}`,
      ...over.map((l) => `licence for ${l.skill} ended on ${sayDay(l.until, ctx.company.locale)}`),
    ]
      .filter(Boolean)
      .join('; ')
    return {
      id: v.id,
      version: v.version,
      workOrderId: v.workOrderId,
      number: v.number,
      title: v.title,
      kind: v.kind,
      customer: v.customer,
      siteId: v.siteId,
      place: [v.site, v.line1].filter(Boolean).join(', '),
      town: v.town,
      technicianId: v.technicianId,
      startAt: v.startAt,
      durationSeconds: v.durationSeconds,
      state: v.state,
      promiseDate: v.promiseDate,
      promiseFrom: v.promiseFrom,
      promiseTo: v.promiseTo,
      promiseStart: promise(v.promiseFrom),
      promiseEnd: promise(v.promiseTo),
      driveSeconds: p?.driveSeconds ?? 0,
      arriveAt: p ? iso(p.arriveAt) : null,
      finishAt: p ? iso(p.finishAt) : null,
      atRisk: p?.atRisk ?? false,
      lateSeconds: p?.lateSeconds ?? 0,
      net: v.net ? minorToDecimal(v.net, ctx.company.currency) : '',
      waiting: v.startAt && v.technicianId ? '' : waiting(ctx, v),
      locked: v.locked,
      note: v.note,
      crewIds: crewIds(v),
      alongIds: [],
      contact: v.contact,
      accessNote: v.accessNote,
      officeNote: v.officeNote,
      quote: v.quote ?? '',
      territory: territory?.name ?? '',
      skills,
      misfit,
      lat: v.lat,
      lon: v.lon,
    }
  })
}
export const shapeVisit = async (ctx: Ctx, id: string): Promise<Visit> =>
  (await shapeVisits(ctx, [(await boardVisit(ctx.tx, id))!]))[0]!
function promisedFor({ today, company }: Ctx, date: string | null): string {
  if (!date) return 'no day promised'
  if (date === today) return 'promised today'
  return `promised for ${sayDay(date, company.locale)}${date < today ? ', which has passed' : ''}`
}
function waiting(ctx: Ctx, v: BoardVisit): string {
  const wanted = promisedFor(ctx, v.promiseDate)
  return v.note
    ? `A further visit: ${v.note}; ${wanted}`.slice(0, 200)
    : `Called ${sayAgo(ctx.now - Date.parse(v.createdAt))} ago, ${wanted}`
}
