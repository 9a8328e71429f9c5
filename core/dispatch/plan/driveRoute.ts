// One technician's day driven through: when each visit begins, and what the day costs.
import type { Problem } from './problem'

/** The day so far, while it is driven. Kept as one mutable record, because the search drives millions of days. */
export interface Drive { t: number, at: number, pause: number, drive: number, work: number, late: number, broken: number, load: number, visits: number }
export const begin = (p: Problem, k: number, into: Drive = { t: 0, at: 0, pause: 0, drive: 0, work: 0, late: 0, broken: 0, load: 0, visits: 0 }): Drive => {
  const tech = p.technicians[k]!
  into.t = tech.from
  into.at = tech.start
  into.pause = into.drive = into.work = into.late = into.broken = into.load = into.visits = 0
  return into
}
export function copy(from: Drive, into: Drive): void {
  into.t = from.t
  into.at = from.at
  into.pause = from.pause
  into.drive = from.drive
  into.work = from.work
  into.late = from.late
  into.broken = from.broken
  into.load = from.load
  into.visits = from.visits
}

/**
 * Goes on to the next visit: takes a pause that is due, drives, waits for the window, works. A pause is due once its span has
 * begun, or when the visit would not be over before its span ends.
 * @returns the start of the work, or NaN when the visit cannot be on this day: a hard window, too many visits, too much load
 */
export function step(p: Problem, k: number, v: number, s: Drive): number {
  const tech = p.technicians[k]!
  const visit = p.visits[v]!
  const leg = p.drive[s.at * p.places + visit.place]!
  while (s.pause < tech.breaks.length) {
    const b = tech.breaks[s.pause]!
    if (s.t < b.from && Math.max(s.t + leg, visit.from) + visit.seconds <= b.to) break
    s.t = Math.max(s.t, b.from) + b.seconds
    s.pause++
  }
  let start = s.t + leg
  if (start < visit.from) start = visit.from
  if (start > visit.to) {
    if (visit.hard) return NaN
    s.broken++
    s.late += start - visit.to
  }
  s.load += visit.load
  s.visits++
  if (s.load > tech.loadMost || s.visits > tech.visitsMost) return NaN
  s.t = start + visit.seconds
  s.at = visit.place
  s.drive += leg
  s.work += visit.seconds
  return start
}
/** The way home, and what the whole day costs; Infinity when it runs longer than it may. A day without visits costs nothing. */
export function finish(p: Problem, k: number, s: Drive): number {
  if (s.visits === 0) return 0
  const tech = p.technicians[k]!
  const w = p.weights
  let { t, drive } = s
  for (let b = s.pause; b < tech.breaks.length; b++) {
    const due = tech.breaks[b]!
    if (t >= due.from) t = Math.max(t, due.from) + due.seconds
  }
  if (tech.end >= 0) {
    const leg = p.drive[s.at * p.places + tech.end]!
    t += leg
    drive += leg
  }
  const over = t > tech.to ? t - tech.to : 0
  if (over > tech.overtimeMost) return Infinity
  const hours = s.work / 3600
  return w.driving * drive + w.overtime * over + w.broken * s.broken + w.late * s.late + w.evenness * hours * hours
}
const scratch: Drive = { t: 0, at: 0, pause: 0, drive: 0, work: 0, late: 0, broken: 0, load: 0, visits: 0 }
/** What a day costs, Infinity when it cannot be driven. */
export function routeCost(p: Problem, k: number, route: readonly number[]): number {
  begin(p, k, scratch)
  for (const v of route) {
    if (p.visits[v]!.allowed[k] === 0 || Number.isNaN(step(p, k, v, scratch))) return Infinity
  }
  return finish(p, k, scratch)
}
