// One technician's day driven through: when each visit begins, and what the day costs.
import type { Problem } from './problem'

/**
 * A pause may be taken at any visit's edge within its span, and which edge is best shows only later in the
 * day. So the day is driven with each choice at once: a label is one of them, and a label that is later and
 * dearer than another one is dropped.
 * Source: label setting with dominance, M. Desrochers & F. Soumis, INFOR 26 (1988).
 */
const MOST_LABELS = 8

/** The day so far, while it is driven. Kept as one mutable record, because the search drives millions of days. */
export interface Drive {
  /** how many labels there are */
  labels: number
  /** for each label: the time, the next pause, how late and how often promises were broken, its start of the last visit, the label it came from */
  t: Float64Array
  pause: Int32Array
  late: Float64Array
  broken: Int32Array
  start: Float64Array
  from: Int32Array
  /** the same for all of them */
  at: number
  drive: number
  work: number
  load: number
  visits: number
}
export const drive = (): Drive => ({
  labels: 0,
  t: new Float64Array(MOST_LABELS),
  pause: new Int32Array(MOST_LABELS),
  late: new Float64Array(MOST_LABELS),
  broken: new Int32Array(MOST_LABELS),
  start: new Float64Array(MOST_LABELS),
  from: new Int32Array(MOST_LABELS),
  at: 0,
  drive: 0,
  work: 0,
  load: 0,
  visits: 0,
})
export function begin(p: Problem, k: number, into: Drive): Drive {
  const tech = p.technicians[k]!
  into.labels = 1
  into.t[0] = tech.from
  into.pause[0] = into.late[0] = into.broken[0] = into.start[0] = into.from[0] = 0
  into.at = tech.start
  into.drive = into.work = into.load = into.visits = 0
  return into
}
export function copy(from: Drive, into: Drive): void {
  into.labels = from.labels
  for (let i = 0; i < from.labels; i++) copyLabel(from, i, into, i)
  into.at = from.at
  into.drive = from.drive
  into.work = from.work
  into.load = from.load
  into.visits = from.visits
}
function copyLabel(from: Drive, i: number, into: Drive, j: number): void {
  into.t[j] = from.t[i]!
  into.pause[j] = from.pause[i]!
  into.late[j] = from.late[i]!
  into.broken[j] = from.broken[i]!
  into.start[j] = from.start[i]!
  into.from[j] = from.from[i]!
}
const paid = (p: Problem, s: Drive, i: number): number =>
  p.weights.broken * s.broken[i]! + p.weights.late * s.late[i]!
const label = { t: 0, pause: 0, late: 0, broken: 0, start: 0, from: 0 }
/** Takes the label in unless another one is as good in everything; those that it is as good as are dropped. */
function put(p: Problem, into: Drive): void {
  const cost = p.weights.broken * label.broken + p.weights.late * label.late
  let n = 0
  for (let i = 0; i < into.labels; i++) {
    const other = paid(p, into, i)
    if (into.t[i]! <= label.t && other <= cost && into.pause[i]! >= label.pause) return
    if (label.t <= into.t[i]! && cost <= other && label.pause >= into.pause[i]!) continue
    if (n !== i) copyLabel(into, i, into, n)
    n++
  }
  into.labels = n
  if (n === MOST_LABELS) return
  into.t[n] = label.t
  into.pause[n] = label.pause
  into.late[n] = label.late
  into.broken[n] = label.broken
  into.start[n] = label.start
  into.from[n] = label.from
  into.labels = n + 1
}
const next = drive()

/**
 * Goes on to the next visit: takes a pause or leaves it for later, drives, waits for the window, works. A pause is left for
 * later only where it can still begin within its span after the visit.
 * @returns the earliest start of the work, or NaN when the visit cannot be on this day: a hard window, too many visits, too much load
 */
export function step(p: Problem, k: number, v: number, s: Drive): number {
  const tech = p.technicians[k]!
  const visit = p.visits[v]!
  const leg = p.drive[s.at * p.places + visit.place]!
  s.load += visit.load
  s.visits++
  if (s.load > tech.loadMost || s.visits > tech.visitsMost) return NaN
  next.labels = 0
  for (let i = 0; i < s.labels; i++) {
    label.from = i
    goOn(p, k, v, s)
  }
  if (next.labels === 0) return NaN
  s.labels = next.labels
  let earliest = Infinity
  for (let i = 0; i < next.labels; i++) {
    copyLabel(next, i, s, i)
    if (next.start[i]! < earliest) earliest = next.start[i]!
  }
  s.at = visit.place
  s.drive += leg
  s.work += visit.seconds
  return earliest
}
/** What one label becomes at the next visit: with no pause before it, with one, with several. */
function goOn(p: Problem, k: number, v: number, s: Drive): void {
  const tech = p.technicians[k]!
  const visit = p.visits[v]!
  const leg = p.drive[s.at * p.places + visit.place]!
  // The first drive may be over when the shift begins, unless something else comes before it.
  const early = s.visits === 1 && !Number.isNaN(tech.setsOff)
  const before = s.pause[label.from]!
  let t = s.t[label.from]!
  for (let pause = before; ; pause++) {
    const due = tech.breaks[pause]
    const there = early && pause === before ? Math.max(t, tech.setsOff + leg) : t + leg
    const arrive = Math.max(there, visit.from)
    const later = due === undefined || arrive + visit.seconds <= due.to
    label.pause = pause
    if (later) arriveWith(p, v, s, arrive)
    // To wait for one whose moment is fixed is never better than to make the visit that fits before it.
    if (due === undefined || (later && due.to <= due.from)) return
    t = Math.max(t, due.from) + due.seconds
  }
}
function arriveWith(p: Problem, v: number, s: Drive, start: number): void {
  const visit = p.visits[v]!
  const missed = start > visit.to ? start - visit.to : 0
  if (missed > 0 && visit.hard) return
  label.t = start + visit.seconds
  label.late = s.late[label.from]! + missed
  label.broken = s.broken[label.from]! + (missed > 0 ? 1 : 0)
  label.start = start
  put(p, next)
}

/** What the best way to end the day is; `cost` is Infinity when it runs longer than it may. */
export const ended = { label: 0, end: 0, over: 0, cost: 0 }
/** The way home, and what the whole day costs; Infinity when it runs longer than it may. A day without visits costs nothing. */
export function finish(p: Problem, k: number, s: Drive): number {
  const tech = p.technicians[k]!
  ended.label = 0
  ended.end = tech.from
  ended.over = 0
  ended.cost = 0
  if (s.visits === 0) return 0
  const w = p.weights
  const leg = tech.end >= 0 ? p.drive[s.at * p.places + tech.end]! : 0
  const hours = s.work / 3600
  const common = w.driving * (s.drive + leg) + w.evenness * hours * hours
  ended.cost = Infinity
  for (let i = 0; i < s.labels; i++) {
    let t = s.t[i]!
    for (let b = s.pause[i]!; b < tech.breaks.length; b++) {
      const due = tech.breaks[b]!
      if (t >= due.from) t = Math.max(t, due.from) + due.seconds
    }
    const worked = Number.isNaN(tech.setsOff) ? t + leg : t
    const over = worked > tech.to ? worked - tech.to : 0
    const cost = over > tech.overtimeMost ? Infinity : common + w.overtime * over + paid(p, s, i)
    if (i === 0 || cost < ended.cost) {
      ended.label = i
      ended.end = t + leg
      ended.over = over
      ended.cost = cost
    }
  }
  return ended.cost
}
const scratch = drive()
/** What a day costs, Infinity when it cannot be driven. */
export function routeCost(p: Problem, k: number, route: readonly number[]): number {
  begin(p, k, scratch)
  for (const v of route) {
    if (p.visits[v]!.allowed[k] === 0 || Number.isNaN(step(p, k, v, scratch))) return Infinity
  }
  return finish(p, k, scratch)
}

export interface Driven {
  starts: number[]
  end: number
  /** past the shift */ over: number
  driving: number
  work: number
  broken: number
  cost: number
}
type Step = Pick<Driven, 'starts'> & { from: number[] }
/** Each visit's labels, as far as the day can be driven. */
function stepsOf(p: Problem, k: number, route: readonly number[], s: Drive): Step[] {
  const steps: Step[] = []
  for (const v of route) {
    if (p.visits[v]!.allowed[k] === 0 || Number.isNaN(step(p, k, v, s))) break
    const reached = s.labels
    steps.push({
      starts: [...s.start.subarray(0, reached)],
      from: [...s.from.subarray(0, reached)],
    })
  }
  return steps
}
/** When each visit began on the way that ended at that label. */
function startsTo(steps: readonly Step[], last: number): number[] {
  let at = last
  return steps
    .toReversed()
    .map((one) => {
      const start = one.starts[at]!
      at = one.from[at]!
      return start
    })
    .reverse()
}
/** A day driven through with its pauses where they cost least: when each visit begins, NaN from the first on that cannot be. */
export function driveThrough(p: Problem, k: number, route: readonly number[]): Driven {
  const s = begin(p, k, drive())
  const steps = stepsOf(p, k, route, s)
  const { drive: driving, work } = s
  if (steps.length < route.length) {
    const never = route.slice(steps.length).map(() => NaN)
    const starts = [...startsTo(steps, 0), ...never]
    return { starts, end: NaN, over: NaN, driving, work, broken: 0, cost: Infinity }
  }
  const cost = finish(p, k, s)
  const { end } = p.technicians[k]!
  const home = route.length && end >= 0 ? p.drive[s.at * p.places + end]! : 0
  return {
    starts: startsTo(steps, ended.label),
    end: ended.end,
    over: ended.over,
    driving: driving + home,
    work,
    broken: s.broken[ended.label]!,
    cost,
  }
}
