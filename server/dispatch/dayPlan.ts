// The day plan: days as they are, handed to the planner in its thread; what it proposes, before and after; accepted in whole or in part.
import { personFacts, planFacts } from './facts'
import { conflict, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { describePlan, type PlanFacts } from '../../core/dispatch/plan/describePlan'
import type {
  Plan,
  PlanInstance,
  PlanTechnician,
  PlanVisit,
} from '../../core/dispatch/plan/instance'
import { localDate, localToInstant, plusDays } from '../../core/time/zone'
import { HOUR } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { inBackgroundContext, signedIn, type Ctx } from '../http/context'
import { log } from '../http/log'
import { record } from '../http/queries'
import { startPlanner, type PlanThread } from '../work/planThread'
import { technicianDays, type DayStop, type TechnicianDay } from './days'
import { driveMatrix } from './drives'
import {
  boardVisit,
  boardVisits,
  dayPlanById,
  insertDayPlan,
  insertTimeOff,
  keepPlanAlive,
  lockPeople,
  plansRunningFor,
  setPlanProgress,
  setPlanState,
  skillsOfVisits,
  technicianById,
  unplaced,
  wantPlanStopped,
  type BoardVisit,
  type Wish,
} from './queries'
import { placeVisit } from './service'

type DayPlan = Answer<'dayPlan'>
const OVERTIME_MOST = 2 * 3600
const REST_MOVES_MS = HOUR
/** Plans that one person may have under way at once. */
const MOST_PLANS = 2
const ALIVE_EVERY_MS = 1_000
/** Threads of this process; what has to be known elsewhere stands in the database. */
const running = new Map<string, PlanThread>()
const key = (technicianId: string, date: string) => `${technicianId} ${date}`

function shape(row: NonNullable<Awaited<ReturnType<typeof dayPlanById>>>, absent: string): DayPlan {
  const { wish, result } = row
  return {
    id: row.id,
    state: row.state,
    progress: Math.round(Number(row.progress) * 100),
    problem: row.problem,
    askedAt: row.askedAt,
    dates: wish.dates,
    absent,
    before: result?.before ?? null,
    after: result?.after ?? null,
    changes: result?.changes ?? [],
  }
}
export async function dayPlan(ctx: Ctx, id: string): Promise<DayPlan> {
  const row = await dayPlanById(ctx.tx, id)
  if (!row) throw notFound('plan')
  const { absentId } = row.wish
  return shape(row, absentId ? ((await technicianById(ctx.tx, absentId))?.name ?? '') : '')
}

const seconds = (ms: number) => Math.round(ms / 1000)
/** Places by number, as the planner knows them. A place that nobody knows costs nothing to reach: better than not planning its visit at all. */
class Places {
  readonly all: Place[] = []
  private readonly known = new Map<string, number>()
  number(p: Place | null): number {
    const k = p ? `${p.lat} ${p.lon}` : 'unknown'
    if (!this.known.has(k)) {
      this.known.set(k, this.all.length)
      this.all.push(p ?? { lat: NaN, lon: NaN })
    }
    return this.known.get(k)!
  }
}
async function daysOf(
  ctx: Ctx,
  wish: Wish,
): Promise<{ days: TechnicianDay[]; absent: TechnicianDay[]; dates: string[] }> {
  const dates = [...new Set(wish.dates)].sort()
  const last = dates.at(-1)!
  const span = Array.from({ length: 8 }, (_, i) => plusDays(dates[0]!, i)).filter((d) => d <= last)
  if (span.at(-1) !== last)
    throw invalid('dates', 'The days lie too far apart; plan them in two goes.')
  const all = (await technicianDays(ctx, dates[0]!, span.length)).filter((d) =>
    dates.includes(d.date),
  )
  return {
    dates,
    days: all.filter(
      (d) =>
        d.technicianId !== wish.absentId &&
        (wish.technicianIds.length === 0 || wish.technicianIds.includes(d.technicianId)),
    ),
    absent: wish.absentId ? all.filter((d) => d.technicianId === wish.absentId) : [],
  }
}
/** A technician's day as the planner takes it, from now on: what has begun is a fact, and what they help with is a break. */
function asTechnician(ctx: Ctx, d: TechnicianDay, places: Places): PlanTechnician[] {
  const shift = d.working[0]
  if (!shift) return []
  const begun = d.stops.filter((s) => s.state !== 'planned' && !s.helps).at(-1)
  const from = Math.max(
    shift.from,
    d.date === ctx.today ? ctx.now : 0,
    begun ? begun.startAt + begun.durationSeconds * 1000 : 0,
  )
  const isRest = (b: { from: number; to: number }) =>
    d.rests.some((r) => r.from === b.from && r.to === b.to)
  const closed = [
    ...d.blocked.filter((b) => !isRest(b)),
    ...d.stops
      .filter((s) => s.helps)
      .map((s) => ({ from: s.startAt, to: s.startAt + s.durationSeconds * 1000 })),
  ].filter((b) => b.to > from)
  return [
    {
      id: key(d.technicianId, d.date),
      start: places.number(begun?.place ?? d.start),
      end: places.number(d.end),
      shift: { from: seconds(from), to: seconds(Math.max(from, shift.to)) },
      // Whoever is at work already drives within the hours.
      outside:
        ctx.company.drivesOutside && from === shift.from && !begun
          ? { setsOff: d.date === ctx.today ? seconds(ctx.now) : -Infinity }
          : undefined,
      overtimeMost: OVERTIME_MOST,
      skills: [...d.skills],
      breaks: [
        ...closed.map((b) => ({
          from: seconds(b.from),
          to: seconds(b.from),
          seconds: seconds(b.to - Math.max(b.from, from)),
        })),
        // A break may begin an hour earlier or later, between two visits.
        ...d.rests
          .filter((b) => b.to > from)
          .map((b) => ({
            from: seconds(b.from - REST_MOVES_MS),
            to: seconds(b.from + REST_MOVES_MS),
            seconds: seconds(b.to - b.from),
          })),
      ],
    },
  ]
}
/** The window that was promised, as instants. */
function promisedWindow(v: BoardVisit, zone: string): { from: number; to: number } | null {
  if (!v.promiseDate || !v.promiseFrom || !v.promiseTo) return null
  return {
    from: localToInstant(v.promiseDate, v.promiseFrom, zone),
    to: localToInstant(v.promiseDate, v.promiseTo, zone),
  }
}
type Movable = DayStop & { day: TechnicianDay }
function asVisit(
  ctx: Ctx,
  v: BoardVisit,
  stop: Movable | undefined,
  wish: Wish,
  wants: ReadonlySet<string>,
  technicians: readonly PlanTechnician[],
  places: Places,
): PlanVisit {
  const has = stop ? key(stop.day.technicianId, stop.day.date) : ''
  const locked = Boolean(stop?.locked && technicians.some((t) => t.id === has))
  const promised = promisedWindow(v, ctx.company.timeZone)
  const started = locked && v.startAt ? seconds(Date.parse(v.startAt)) : null
  const asPromised = promised && { from: seconds(promised.from), to: seconds(promised.to) }
  const window = started === null ? asPromised : { from: started, to: started }
  const own =
    stop && wish.keepTechnicians && stop.day.technicianId !== wish.absentId
      ? stop.day.technicianId
      : null
  // A skill that nobody on these days has would leave the visit out; who is nearest to it is a question for a person then.
  const skills = [...wants].filter((s) => technicians.some((t) => t.skills!.includes(s)))
  // Whoever has it now may keep it, whatever the rules say: somebody decided that.
  const only = technicians
    .filter(
      (t) =>
        t.id === has ||
        ((!v.promiseDate || t.id.endsWith(v.promiseDate)) &&
          (!own || t.id.startsWith(own)) &&
          skills.every((s) => t.skills!.includes(s))),
    )
    .map((t) => t.id)
  return {
    id: v.id,
    place: places.number(placeOf(v)),
    seconds: v.durationSeconds,
    window: window ?? undefined,
    only,
    locked,
  }
}
/** Days, visits and drives as an instance, the plan as it stands, and what each visit is. */
async function instanceOf(
  ctx: Ctx,
  wish: Wish,
): Promise<{ instance: PlanInstance; given: Plan; visits: Map<string, BoardVisit> }> {
  const { days, absent, dates } = await daysOf(ctx, wish)
  const places = new Places()
  const technicians = days.flatMap((d) => asTechnician(ctx, d, places))
  const movable = [...days, ...absent].flatMap((day) =>
    day.stops.filter((s) => s.state === 'planned' && !s.helps).map((s): Movable => ({ ...s, day })),
  )
  const waiting = wish.tray
    ? (await unplaced(ctx.tx, ctx.today)).filter(
        (v) => v.state === 'planned' && (!v.promiseDate || dates.includes(v.promiseDate)),
      )
    : []
  const rows = new Map(
    [
      ...(await boardVisits(
        ctx.tx,
        movable.map((s) => s.id),
      )),
      ...waiting,
    ].map((v) => [v.id, v]),
  )
  const wants = await skillsOfVisits(ctx.tx, [...rows.keys()])
  const visits = [...rows.values()].map((v) =>
    asVisit(
      ctx,
      v,
      movable.find((s) => s.id === v.id),
      wish,
      wants.get(v.id) ?? new Set(),
      technicians,
      places,
    ),
  )
  // Where a place is not known, nothing is known of the drive.
  const drive = (await driveMatrix(ctx.tx, places.all)).map((d) => (Number.isFinite(d) ? d : 0))
  const given: Plan = {
    routes: technicians.map((t) => ({
      technicianId: t.id,
      visitIds: movable
        .filter((s) => key(s.day.technicianId, s.day.date) === t.id)
        .map((s) => s.id),
    })),
    unserved: [],
  }
  const loose: PlanInstance = {
    technicians: technicians.map((t) => ({ ...t, overtimeMost: Infinity })),
    visits,
    places: places.all.length,
    drive,
  }
  // A day that runs over by more than we would propose may stay as it is, but not become longer.
  const over = new Map(describePlan(loose, given).days.map((d) => [d.technicianId, d.overtime]))
  return {
    instance: {
      ...loose,
      technicians: technicians.map((t) => ({
        ...t,
        overtimeMost: Math.max(OVERTIME_MOST, over.get(t.id) ?? 0),
      })),
    },
    given,
    visits: rows,
  }
}
const factsOf = (f: PlanFacts): NonNullable<DayPlan['before']> => ({
  broken: f.broken,
  unserved: f.unserved.length,
  overtimeSeconds: Math.round(f.overtime),
  drivingSeconds: Math.round(f.driving),
  total: Math.round(Math.min(f.total, 1e12)),
})

/** What changes for whom: days whose order stays keep their times; on the others a visit begins at the next five minutes. */
function changesOf(
  ctx: Ctx,
  wish: Wish,
  instance: PlanInstance,
  given: Plan,
  plan: Plan,
  visits: Map<string, BoardVisit>,
  names: Map<string, string>,
): DayPlan['changes'] {
  const zone = ctx.company.timeZone
  const facts = describePlan(instance, plan)
  const before = new Map(given.routes.map((r) => [r.technicianId, r.visitIds.join()]))
  const changes: DayPlan['changes'] = []
  for (const day of facts.days) {
    if (before.get(day.technicianId) === day.stops.map((s) => s.visitId).join()) continue
    const technicianId = day.technicianId.split(' ')[0]!
    for (const stop of day.stops) {
      const v = visits.get(stop.visitId)!
      const startAt = Math.ceil(stop.start / 300) * 300_000
      if (
        v.technicianId === technicianId &&
        v.startAt &&
        Math.abs(Date.parse(v.startAt) - startAt) < 300_000
      )
        continue
      if (instance.visits.find((x) => x.id === v.id)?.locked) continue
      const promised = promisedWindow(v, zone)
      const kept = !promised || (startAt >= promised.from && startAt <= promised.to)
      const why = () => {
        if (!v.startAt || !v.technicianId) return 'had no slot'
        if (v.technicianId === wish.absentId) return `${names.get(v.technicianId)} is away`
        if (!kept) return 'outside the window that was promised: tell the customer'
        return v.technicianId === technicianId ? 'another order' : 'less driving or time over'
      }
      changes.push({
        visitId: v.id,
        version: v.version,
        durationSeconds: v.durationSeconds,
        number: v.number,
        title: v.title,
        customer: v.customer,
        promise: promised ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
        kept,
        from: {
          technicianId: v.technicianId,
          technician: v.technicianId ? (names.get(v.technicianId) ?? '') : '',
          startAt: v.technicianId ? v.startAt : null,
        },
        to: {
          technicianId,
          technician: names.get(technicianId) ?? '',
          startAt: new Date(startAt).toISOString(),
        },
        why: why(),
      })
    }
  }
  for (const id of facts.unserved) {
    const v = visits.get(id)!
    if (!v.startAt || !v.technicianId) continue
    changes.push({
      visitId: id,
      version: v.version,
      durationSeconds: v.durationSeconds,
      number: v.number,
      title: v.title,
      customer: v.customer,
      promise:
        v.promiseDate && v.promiseFrom ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
      kept: false,
      from: {
        technicianId: v.technicianId,
        technician: names.get(v.technicianId) ?? '',
        startAt: v.startAt,
      },
      to: { technicianId: null, technician: '', startAt: null },
      why: 'no room for it: it goes back to the tray, tell the customer',
    })
  }
  return changes.sort((a, b) =>
    String(a.to.startAt ?? '9').localeCompare(String(b.to.startAt ?? '9')),
  )
}

export async function beginPlan(ctx: Ctx, body: Body<'beginPlan'>): Promise<DayPlan> {
  const { id, ...wish } = body
  // Asked twice with the same identifier, it is the same plan.
  if (await dayPlanById(ctx.tx, id)) return dayPlan(ctx, id)
  if (wish.dates.some((d) => d < ctx.today))
    throw invalid('dates', 'A day that has passed cannot be planned.')
  if (wish.absentId && !(await technicianById(ctx.tx, wish.absentId)))
    throw invalid('absentId', 'This person cannot be booked.')
  const { instance, given, visits } = await instanceOf(ctx, wish)
  if (instance.technicians.length === 0)
    throw conflict('nobody_works', 'Nobody works on these days.')
  if (instance.visits.length === 0)
    throw conflict(
      'nothing_to_plan',
      'There is nothing on these days that could be planned otherwise.',
    )
  const by = signedIn(ctx)
  await lockPeople(ctx.tx, [by.id])
  if ((await plansRunningFor(ctx.tx, by.id)) >= MOST_PLANS)
    throw new LedgerError(
      'too_many_plans',
      429,
      `You have ${MOST_PLANS} plans under way already. Stop one, or wait for it.`,
      [],
      { retryAfter: 10 },
    )
  await insertDayPlan(ctx.tx, { id, wish, by: by.id, at: ctx.now })
  await record(ctx, { subject: 'plan', id, fact: planFacts.asked({ days: wish.dates }) })
  const names = new Map<string, string>()
  for (const v of new Set([
    ...instance.technicians.map((t) => t.id.split(' ')[0]!),
    ...[...visits.values()].flatMap((x) => x.technicianId ?? []),
  ]))
    names.set(v, (await technicianById(ctx.tx, v))?.name ?? '')
  const before = factsOf(describePlan(instance, given))
  const later = (work: (c: Ctx) => Promise<unknown>) =>
    inBackgroundContext(work, { actor: by, ip: ctx.ip }).catch((error) =>
      log.error({ err: (error as Error).message }, 'plan'),
    )
  ctx.tx.afterCommit(() => {
    let told = 0
    const thread = startPlanner({ instance, given, seconds: wish.seconds, seed: 7 }, (passed) => {
      if (passed - told < 0.1) return
      told = passed
      void inBackgroundContext((c) => setPlanProgress(c.tx, id, passed)).catch(() => {})
    })
    const alive = setInterval(() => {
      void inBackgroundContext((c) => keepPlanAlive(c.tx, id, Date.now())).then(
        (wanted) => {
          if (wanted) thread.stop()
        },
        () => {},
      )
    }, ALIVE_EVERY_MS)
    running.set(id, thread)
    void thread.done
      .then(
        ({ plan, stopped }) =>
          later((c) =>
            setPlanState(c.tx, id, stopped ? 'stopped' : 'ready', {
              result: {
                before,
                after: factsOf(describePlan(instance, plan)),
                changes: changesOf(c, wish, instance, given, plan, visits, names),
              },
            }),
          ),
        (error) =>
          later((c) =>
            setPlanState(c.tx, id, 'failed', {
              problem: `The planner could not do it: ${(error as Error).message}. Nothing was changed.`,
            }),
          ),
      )
      .finally(() => {
        clearInterval(alive)
        running.delete(id)
      })
  })
  return dayPlan(ctx, id)
}
export async function stopPlan(ctx: Ctx, id: string): Promise<DayPlan> {
  const plan = await dayPlan(ctx, id)
  if (plan.state !== 'running')
    throw conflict('not_running', 'This plan is not being worked on any more.')
  // Whichever process works on it reads this; if it is this one, at once.
  await wantPlanStopped(ctx.tx, id)
  ctx.tx.afterCommit(() => running.get(id)?.stop())
  return plan
}
export async function acceptPlan(
  ctx: Ctx,
  id: string,
  body: Body<'acceptPlan'>,
): Promise<Answer<'acceptPlan'>> {
  const row = await dayPlanById(ctx.tx, id, true)
  if (!row) throw notFound('plan')
  if (row.state === 'accepted')
    throw conflict('already_accepted', 'This plan has been accepted already.')
  const { wish, result: proposal } = row
  if (!proposal || (row.state !== 'ready' && row.state !== 'stopped'))
    throw conflict('not_ready', 'There is no proposal to accept yet.')
  const chosen = body.visitIds.map(
    (v, i) =>
      proposal.changes.find((c) => c.visitId === v) ??
      (() => {
        throw invalid(`visitIds[${i}]`, 'This visit is not among the changes.')
      })(),
  )
  await lockPeople(ctx.tx, [
    wish.absentId,
    ...chosen.flatMap((c) => [c.from.technicianId, c.to.technicianId]),
  ])
  // Everything as it was proposed, or nothing: what somebody moved since then makes the proposal an old one.
  const undo: Answer<'acceptPlan'>['undo'] = []
  for (const change of chosen) {
    const now = (await boardVisit(ctx.tx, change.visitId))!
    if (now.version !== change.version || now.state !== 'planned')
      throw conflict(
        'plan_is_old',
        `${now.number}, ${now.title}, was changed since this was proposed. Ask for a new plan.`,
      )
    const placed = await placeVisit(ctx, change.visitId, {
      version: change.version,
      technicianId: change.to.technicianId,
      startAt: change.to.startAt,
      durationSeconds: change.durationSeconds,
      override: true,
      crewIds: undefined,
    })
    undo.push({
      visitId: change.visitId,
      version: placed.version,
      technicianId: change.from.technicianId,
      startAt: change.from.startAt,
      durationSeconds: change.durationSeconds,
    })
  }
  if (wish.absentId) {
    const zone = ctx.company.timeZone
    for (const date of wish.dates) {
      const from = Math.max(
        localToInstant(date, '00:00', zone),
        date === localDate(ctx.now, zone) ? ctx.now : 0,
      )
      await insertTimeOff(ctx.tx, {
        id: ctx.id(),
        personId: wish.absentId,
        from,
        to: localToInstant(plusDays(date, 1), '00:00', zone),
        reason: wish.reason || 'ill',
      })
      await record(ctx, {
        subject: 'person',
        id: wish.absentId,
        fact: personFacts.offFrom({
          at: new Date(from).toISOString(),
          reason: wish.reason || 'ill',
        }),
      })
    }
  }
  await setPlanState(ctx.tx, id, 'accepted', {})
  await record(ctx, {
    subject: 'plan',
    id,
    fact: planFacts.accepted({ chosen: chosen.length, of: proposal.changes.length }),
  })
  return { plan: await dayPlan(ctx, id), undo }
}
