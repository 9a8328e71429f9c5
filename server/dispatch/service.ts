// The schedule of a day as it was promised and as it will run; placing visits with their warnings.
import { conflict, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { predictDay, type Prediction } from '../../core/dispatch/predictDay'
import { SOFT_WARNINGS, visitWarnings, type VisitWarning } from '../../core/dispatch/visitWarnings'
import { minorToDecimal } from '../../core/money/formatMinor'
import { dayBounds, localDate, localTime, localToInstant, plusDays, sayDay, weekday } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { territoryOf } from '../../core/customers/territoryOf'
import { callDraft } from '../../shared/calls'
import { heldNow, heldOn } from '../calls/queries'
import { siteById } from '../customers/queries'
import type { Ctx } from '../http/context'
import { json, territories } from '../settings/queries'
import { record } from '../http/queries'
import { refreshWorkOrder } from '../visits/account'
import { moveVisit, visitById, workOrderById } from '../visits/queries'
import { driver, type Driver } from './drives'
import { boardVisit, entriesBetween, holidaysBetween, loadByDay, technicianById, technicians, timeOffBetween, unplaced, visitsBetween, type BoardVisit, type Technician } from './queries'

const iso = (ms: number) => new Date(ms).toISOString()
type Visit = Answer<'placeVisit'>

function workingOn(t: Pick<Technician, 'hours'>, date: string, zone: string, holidays: ReadonlySet<string>): { from: number, to: number }[] {
  const day = holidays.has(date) ? undefined : t.hours[String(weekday(date))]
  return day ? [{ from: localToInstant(date, day.from, zone), to: localToInstant(date, day.to, zone) }] : []
}

/** Drives and predictions for the stops of every technician, in order. */
function routes(ctx: Ctx, people: Technician[], visits: BoardVisit[], driveSeconds: Driver): Map<string, Prediction & { driveSeconds: number }> {
  const out = new Map<string, Prediction & { driveSeconds: number }>()
  for (const person of people) {
    let place = person.lat !== null ? { lat: person.lat, lon: person.lon! } : null
    const stops = visits.filter(v => v.technicianId === person.id && v.startAt).map((v) => {
      const site = v.lat !== null ? { lat: v.lat, lon: v.lon! } : null
      const drive = place && site ? driveSeconds(place, site) : 0
      place = site ?? place
      return {
        id: v.id, state: v.state, startAt: Date.parse(v.startAt!), durationSeconds: v.durationSeconds, driveSeconds: drive,
        promiseEnd: v.promiseDate && v.promiseTo ? localToInstant(v.promiseDate, v.promiseTo, ctx.company.timeZone) : null,
        setOffAt: v.setOffAt ? Date.parse(v.setOffAt) : null, arrivedAt: v.startedAt ? Date.parse(v.startedAt) : null, finishedAt: v.finishedAt ? Date.parse(v.finishedAt) : null,
      }
    })
    for (const p of predictDay(stops, ctx.now)) out.set(p.id, { ...p, driveSeconds: stops.find(s => s.id === p.id)!.driveSeconds })
  }
  return out
}

function shape(ctx: Ctx, v: BoardVisit, p?: Prediction & { driveSeconds: number }): Visit {
  const zone = ctx.company.timeZone
  const promise = (at: string | null) => (v.promiseDate && at ? iso(localToInstant(v.promiseDate, at, zone)) : null)
  const since = Math.round((ctx.now - Date.parse(v.createdAt)) / 60_000)
  const ago = since < 60 ? `${since} min` : since < 1440 ? `${Math.round(since / 60)} h` : Math.round(since / 1440) === 1 ? '1 day' : `${Math.round(since / 1440)} days`
  const wanted = v.promiseDate ? (v.promiseDate === ctx.today ? 'promised today' : v.promiseDate < ctx.today ? `promised for ${sayDay(v.promiseDate)}, which has passed` : `promised for ${sayDay(v.promiseDate)}`) : 'no day promised'
  return {
    id: v.id, version: v.version, workOrderId: v.workOrderId, number: v.number, title: v.title, kind: v.kind, customer: v.customer, place: [v.site, v.line1].filter(Boolean).join(', '), town: v.town, technicianId: v.technicianId,
    startAt: v.startAt, durationSeconds: v.durationSeconds, state: v.state, promiseDate: v.promiseDate, promiseFrom: v.promiseFrom, promiseTo: v.promiseTo, promiseStart: promise(v.promiseFrom), promiseEnd: promise(v.promiseTo),
    driveSeconds: p?.driveSeconds ?? 0, arriveAt: p ? iso(p.arriveAt) : null, finishAt: p ? iso(p.finishAt) : null, atRisk: p?.atRisk ?? false, lateSeconds: p?.lateSeconds ?? 0, net: v.net ? minorToDecimal(v.net, ctx.company.currency) : '',
    waiting: v.startAt && v.technicianId ? '' : `Called ${ago} ago, ${wanted}`,
  }
}

export async function schedule(ctx: Ctx, wanted?: string): Promise<Answer<'schedule'>> {
  const date = wanted || ctx.today
  const zone = ctx.company.timeZone
  const { from, to } = dayBounds(date, zone)
  const people = await technicians(ctx.tx)
  const visits = await visitsBetween(ctx.tx, from, to)
  const predicted = routes(ctx, people, visits, await driver(ctx.tx))
  // A meeting is shown, and warned of, as time off is.
  const off = [...await timeOffBetween(ctx.tx, from, to), ...(await entriesBetween(ctx.tx, from, to)).map(e => ({ personId: e.personId, from: e.from, to: e.to, reason: e.title }))]
  const holidays = await holidaysBetween(ctx.tx, date, date)
  const working = people.map(p => workingOn(p, date, zone, new Set(holidays.map(h => h.date))))
  const edges = [...working.flat(), ...visits.map(v => ({ from: Date.parse(v.startAt!), to: Date.parse(v.startAt!) + v.durationSeconds * 1000 }))]
  const hour = 3_600_000
  const dayStart = Math.floor(Math.min(localToInstant(date, '07:00', zone), ...edges.map(e => e.from)) / hour) * hour
  const dayEnd = Math.ceil(Math.max(localToInstant(date, '17:00', zone), ...edges.map(e => e.to)) / hour) * hour
  const shaped = visits.map(v => shape(ctx, v, predicted.get(v.id)))
  const areas = await territories(ctx.tx)
  return {
    date, holiday: holidays[0]?.name ?? '', now: iso(ctx.now), dayStart: iso(dayStart), dayEnd: iso(Math.min(dayEnd, to)),
    technicians: people.map((p, i) => ({ id: p.id, name: p.name, skills: p.skills, territories: areas.filter(a => p.territoryIds.includes(a.id)).map(a => a.name), working: working[i]!.map(w => ({ from: iso(w.from), to: iso(w.to) })), timeOff: off.filter(o => o.personId === p.id).map(o => ({ from: iso(o.from), to: iso(o.to), reason: o.reason })) })),
    visits: shaped, held: await held(ctx, date), tray: (await unplaced(ctx.tx)).map(v => shape(ctx, v)), week: await week(ctx, people, plusDays(date, -(weekday(date) - 1))),
    driveSeconds: shaped.reduce((sum, v) => sum + v.driveSeconds, 0), atRisk: shaped.filter(v => v.atRisk).length,
  }
}

/** Times that calls hold while their details are still being asked for. */
async function held(ctx: Ctx, date: string): Promise<Answer<'schedule'>['held']> {
  return (await heldOn(ctx.tx, date)).map((c) => {
    const draft = callDraft.cast(json<object>(c.draft)) as Answer<'call'>['draft']
    const missing = [!draft.customerId && 'customer', !draft.siteId && 'site', !draft.problem && 'problem'].filter(Boolean).join(', ')
    return { callId: c.id, technicianId: draft.technicianId!, startAt: iso(localToInstant(date, draft.start, ctx.company.timeZone)), durationSeconds: draft.durationSeconds, summary: c.summary || 'Call', missing }
  })
}
/** Seven days from Monday: visits taken and capacity in the morning and in the afternoon. A day off takes its capacity with it. */
async function week(ctx: Ctx, people: Technician[], monday: string): Promise<Answer<'schedule'>['week']> {
  const zone = ctx.company.timeZone
  const from = dayBounds(monday, zone).from
  const to = dayBounds(plusDays(monday, 6), zone).to
  const load = await loadByDay(ctx.tx, from, to)
  const off = await timeOffBetween(ctx.tx, from, to)
  const holidays = new Set((await holidaysBetween(ctx.tx, monday, plusDays(monday, 6))).map(h => h.date))
  return Array.from({ length: 7 }, (_, i) => {
    const date = plusDays(monday, i)
    const noon = localToInstant(date, '12:00', zone)
    const taken = load.filter(l => localDate(Date.parse(l.startAt), zone) === date)
    const capacity = (half: 'morning' | 'afternoon') => people.reduce((sum, p) => {
      const probe = half === 'morning' ? noon - 2 * 3_600_000 : noon + 2 * 3_600_000
      return sum + (holidays.has(date) || off.some(o => o.personId === p.id && o.from <= probe && probe < o.to) ? 0 : p.hours[String(weekday(date))]?.[half] ?? 0)
    }, 0)
    return { date, morning: taken.filter(t => Date.parse(t.startAt) < noon).length, afternoon: taken.filter(t => Date.parse(t.startAt) >= noon).length, capacityMorning: capacity('morning'), capacityAfternoon: capacity('afternoon') }
  })
}

export async function checkPlacement(ctx: Ctx, p: { visitId: string | null, technicianId: string, startAt: number, durationSeconds: number, promiseFrom?: string | null, promiseTo?: string | null, promiseDate?: string | null, siteId?: string | null, skills?: string[], callId?: string | null }): Promise<VisitWarning[]> {
  const person = await technicianById(ctx.tx, p.technicianId)
  if (!person) throw invalid('technicianId', 'This person cannot be booked.')
  const zone = ctx.company.timeZone
  const date = localDate(p.startAt, zone)
  const { from, to } = dayBounds(date, zone)
  const others = (await visitsBetween(ctx.tx, from, to)).filter(v => v.technicianId === p.technicianId && v.id !== p.visitId)
  const off = (await timeOffBetween(ctx.tx, from, to)).filter(o => o.personId === p.technicianId)
  const promiseDate = p.promiseDate ?? date
  const promise = p.promiseFrom && p.promiseTo ? { from: localToInstant(promiseDate, p.promiseFrom, zone), to: localToInstant(promiseDate, p.promiseTo, zone) } : null
  const entries = (await entriesBetween(ctx.tx, from, to)).filter(e => e.personId === p.technicianId)
  const held = await heldByOthers(ctx, { ...p, callId: p.callId ?? null })
  const warnings = visitWarnings({ technicianId: p.technicianId, startAt: p.startAt, endAt: p.startAt + p.durationSeconds * 1000 }, {
    working: workingOn(person, date, zone, new Set((await holidaysBetween(ctx.tx, date, date)).map(h => h.date))), timeOff: [...off, ...entries.map(e => ({ from: e.from, to: e.to, reason: e.title }))], ...await territoryFacts(ctx, person, p.siteId), wanted: p.skills, skills: person.skills,
    others: others.map(o => ({ id: o.id, startAt: Date.parse(o.startAt!), endAt: Date.parse(o.startAt!) + o.durationSeconds * 1000, label: `${o.customer}, ${localTime(Date.parse(o.startAt!), zone)}` })),
  }, promise, person.name.split(' ')[0]!)
  return held ? [...warnings, { code: 'held', text: `this time is held by ${held}` }] : warnings
}
/** Who else holds that time for a caller at present, in words; empty when nobody does. */
export async function heldByOthers(ctx: Ctx, p: { callId: string | null, technicianId: string, startAt: number, durationSeconds: number }): Promise<string> {
  for (const c of await heldNow(ctx.tx, ctx.now, p.callId)) {
    const draft = callDraft.cast(json<object>(c.draft)) as Answer<'call'>['draft']
    if (draft.technicianId !== p.technicianId || !draft.date || !draft.start) continue
    const at = localToInstant(draft.date, draft.start, ctx.company.timeZone)
    if (at < p.startAt + p.durationSeconds * 1000 && p.startAt < at + draft.durationSeconds * 1000) return `${c.takenBy ?? 'another call'}, for ${c.summary || 'a caller'}`
  }
  return ''
}
async function territoryFacts(ctx: Ctx, person: Technician, siteId?: string | null): Promise<{ territory?: string, serves?: string[] }> {
  const site = siteId ? await siteById(ctx.tx, siteId) : null
  if (!site) return {}
  const areas = await territories(ctx.tx)
  return { territory: territoryOf(site.postcode, areas)?.name, serves: areas.filter(a => person.territoryIds.includes(a.id)).map(a => a.name) }
}
/** Refuses a placement with warnings unless someone overrides them; the warnings are in the answer and in the trail. */
export async function mayPlace(ctx: Ctx, warnings: VisitWarning[], override: boolean): Promise<void> {
  const hard = warnings.filter(w => !SOFT_WARNINGS.includes(w.code))
  if (hard.length && !override) throw new LedgerError('placement_warning', 409, `${hard.map(w => w.text).join('; ')}.`.replace(/^./, c => c.toUpperCase()), [], { warnings })
}

export async function placeVisit(ctx: Ctx, id: string, body: Body<'placeVisit'>): Promise<Visit> {
  const visit = await visitById(ctx.tx, id, true)
  if (!visit) throw notFound('visit')
  if (visit.version !== body.version) throw conflict('stale', 'Someone moved or changed this visit in the meantime.', { current: shape(ctx, (await boardVisit(ctx.tx, id))!), yours: body })
  const startAt = body.startAt ? Date.parse(body.startAt) : null
  if (visit.state !== 'planned' && (startAt === null || body.technicianId !== visit.technicianId)) throw conflict('started', 'This visit has started; it stays with its technician.')
  const warnings = body.technicianId && startAt !== null ? await checkPlacement(ctx, { visitId: id, technicianId: body.technicianId, startAt, durationSeconds: body.durationSeconds, promiseFrom: visit.promiseFrom, promiseTo: visit.promiseTo, promiseDate: visit.promiseDate }) : []
  await mayPlace(ctx, warnings, body.override)
  if (!(await moveVisit(ctx.tx, id, body.version, body.technicianId, startAt, body.durationSeconds))) throw conflict('stale', 'Someone moved this visit in the meantime.')
  const work = (await workOrderById(ctx.tx, visit.workOrderId))!
  const person = body.technicianId ? await technicianById(ctx.tx, body.technicianId) : null
  const when = startAt === null ? 'taken off the schedule' : `${localDate(startAt, ctx.company.timeZone)} ${localTime(startAt, ctx.company.timeZone)}`
  await record(ctx, { subject: 'visit', id, workOrderId: work.id, customerId: work.customerId, text: `Visit: ${when}${person ? `, ${person.name}` : ''}${warnings.length ? ` in spite of: ${warnings.map(w => w.text).join('; ')}` : ''}`, data: { startAt: { from: visit.startAt, to: body.startAt }, technicianId: { from: visit.technicianId, to: body.technicianId }, durationSeconds: { from: visit.durationSeconds, to: body.durationSeconds } } })
  await refreshWorkOrder(ctx, work.id)
  return shape(ctx, (await boardVisit(ctx.tx, id))!)
}

/** Two visits change places, in one act: either both move or neither. What is wrong with it is in the history of each. */
export async function swapVisits(ctx: Ctx, body: Body<'swapVisits'>): Promise<Answer<'swapVisits'>> {
  if (body.first.id === body.second.id) throw invalid('second', 'A visit cannot change places with itself.')
  const [a, b] = [await visitById(ctx.tx, body.first.id, true), await visitById(ctx.tx, body.second.id, true)]
  if (!a || !b) throw notFound('visit')
  if (!a.startAt || !a.technicianId || !b.startAt || !b.technicianId) throw conflict('no_slot', 'Only visits that have a slot change places.')
  const move = (v: typeof a, to: typeof a, version: number) => placeVisit(ctx, v.id, { version, technicianId: to.technicianId, startAt: to.startAt, durationSeconds: v.durationSeconds, override: true })
  return { visits: [await move(a, b, body.first.version), await move(b, a, body.second.version)] }
}
