// What the planner is given: days as they stand, who works when, what may be moved.
import { invalid } from '../../core/errors/LedgerError'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { describePlan, type PlanFacts } from '../../core/dispatch/plan/describePlan'
import type {
  Plan,
  PlanInstance,
  PlanTechnician,
  PlanVisit,
} from '../../core/dispatch/plan/instance'
import { localToInstant, plusDays } from '../../core/time/zone'
import { HOUR } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import { waitsAt } from '../waiting/at'
import type { Ctx } from '../http/context'
import { technicianDays, type DayStop, type TechnicianDay } from './days'
import { driveMatrix } from './drives'
import { boardVisits, skillsOfVisits, unplaced, type BoardVisit } from './board.queries'
import type { Wish } from './plans.queries'

export type DayPlan = Answer<'dayPlan'>
const OVERTIME_MOST = 2 * 3600
const REST_MOVES_MS = HOUR
const key = (technicianId: string, date: string) => `${technicianId} ${date}`
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
export function promisedWindow(v: BoardVisit, zone: string): { from: number; to: number } | null {
  if (!v.promiseDate || !v.promiseFrom || !v.promiseTo) return null
  return {
    from: localToInstant(v.promiseDate, v.promiseFrom, zone),
    to: localToInstant(v.promiseDate, v.promiseTo, zone),
  }
}
type Movable = DayStop & { day: TechnicianDay }
/** What all visits of a plan have in common. */
interface Frame {
  ctx: Ctx
  wish: Wish
  technicians: readonly PlanTechnician[]
  places: Places
}
/** Who may have a visit: whoever has what it wants, on the day that was promised. */
function mayHave(
  { technicians, wish }: Frame,
  v: BoardVisit,
  stop: Movable | undefined,
  wants: ReadonlySet<string>,
): string[] {
  const has = stop ? key(stop.day.technicianId, stop.day.date) : ''
  const stays = stop && wish.keepTechnicians && stop.day.technicianId !== wish.absentId
  const own = stays ? stop.day.technicianId : null
  // A skill that nobody on these days has would leave the visit out; who is nearest to it is a question for a person then.
  const skills = [...wants].filter((s) => technicians.some((t) => t.skills!.includes(s)))
  const fits = (t: PlanTechnician) =>
    (!v.promiseDate || t.id.endsWith(v.promiseDate)) &&
    (!own || t.id.startsWith(own)) &&
    skills.every((s) => t.skills!.includes(s))
  // Whoever has it now may keep it, whatever the rules say: somebody decided that.
  return technicians.filter((t) => t.id === has || fits(t)).map((t) => t.id)
}
function asVisit(
  frame: Frame,
  v: BoardVisit,
  stop: Movable | undefined,
  wants: ReadonlySet<string>,
): PlanVisit {
  const has = stop ? key(stop.day.technicianId, stop.day.date) : ''
  const locked = Boolean(stop?.locked && frame.technicians.some((t) => t.id === has))
  const promised = promisedWindow(v, frame.ctx.company.timeZone)
  const started = locked && v.startAt ? seconds(Date.parse(v.startAt)) : null
  const asPromised = promised && { from: seconds(promised.from), to: seconds(promised.to) }
  const window = started === null ? asPromised : { from: started, to: started }
  return {
    id: v.id,
    place: frame.places.number(placeOf(v)),
    seconds: v.durationSeconds,
    window: window ?? undefined,
    only: mayHave(frame, v, stop, wants),
    locked,
  }
}
/** What may be placed: what is planned on these days, and what waits for one of them. */
async function visitsToPlan(ctx: Ctx, wish: Wish, movable: readonly Movable[], dates: string[]) {
  const placed = await boardVisits(
    ctx.tx,
    movable.map((s) => s.id),
  )
  const waiting = wish.tray ? await unplaced(ctx.tx, waitsAt(ctx).sql) : []
  const fits = (v: BoardVisit) =>
    v.state === 'planned' && (!v.promiseDate || dates.includes(v.promiseDate))
  return new Map([...placed, ...waiting.filter(fits)].map((v) => [v.id, v]))
}
/** Days as they stand. */
const asGiven = (technicians: readonly PlanTechnician[], movable: readonly Movable[]): Plan => ({
  routes: technicians.map(({ id }) => ({
    technicianId: id,
    visitIds: movable
      .filter(({ day }) => key(day.technicianId, day.date) === id)
      .map((stop) => stop.id),
  })),
  unserved: [],
})
/** A day that runs over by more than we would propose may stay as it is, but not become longer. */
function notLonger(loose: PlanInstance, given: Plan): PlanInstance {
  const over = new Map(describePlan(loose, given).days.map((d) => [d.technicianId, d.overtime]))
  const overtimeMost = (id: string) => Math.max(OVERTIME_MOST, over.get(id) ?? 0)
  return {
    ...loose,
    technicians: loose.technicians.map((t) => ({ ...t, overtimeMost: overtimeMost(t.id) })),
  }
}
/** Days, visits and drives as an instance, the plan as it stands, and what each visit is. */
export async function instanceOf(
  ctx: Ctx,
  wish: Wish,
): Promise<{ instance: PlanInstance; given: Plan; visits: Map<string, BoardVisit> }> {
  const { days, absent, dates } = await daysOf(ctx, wish)
  const places = new Places()
  const technicians = days.flatMap((d) => asTechnician(ctx, d, places))
  const movable = [...days, ...absent].flatMap((day) =>
    day.stops.filter((s) => s.state === 'planned' && !s.helps).map((s): Movable => ({ ...s, day })),
  )
  const rows = await visitsToPlan(ctx, wish, movable, dates)
  const wants = await skillsOfVisits(ctx.tx, [...rows.keys()])
  const stops = new Map(movable.map((s) => [s.id, s]))
  const frame: Frame = { ctx, wish, technicians, places }
  const visits = [...rows.values()].map((v) =>
    asVisit(frame, v, stops.get(v.id), wants.get(v.id) ?? new Set()),
  )
  // Where a place is not known, nothing is known of the drive.
  const drive = (await driveMatrix(ctx.tx, places.all)).map((d) => (Number.isFinite(d) ? d : 0))
  const given = asGiven(technicians, movable)
  const loose: PlanInstance = {
    technicians: technicians.map((t) => ({ ...t, overtimeMost: Infinity })),
    visits,
    places: places.all.length,
    drive,
  }
  return { instance: notLonger(loose, given), given, visits: rows }
}
export const factsOf = (f: PlanFacts): NonNullable<DayPlan['before']> => ({
  broken: f.broken,
  unserved: f.unserved.length,
  overtimeSeconds: Math.round(f.overtime),
  drivingSeconds: Math.round(f.driving),
  total: Math.round(Math.min(f.total, 1e12)),
})
