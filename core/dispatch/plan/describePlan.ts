import { begin, finish, step } from './driveRoute'
import type { Plan, PlanInstance } from './instance'
import { problemOf, routesOf } from './problem'

export interface PlanStop { visitId: string, start: number, finish: number, drive: number, late: number }
export interface PlanDay { technicianId: string, stops: PlanStop[], driving: number, work: number, overtime: number, broken: number, end: number, cost: number }
export interface PlanFacts { days: PlanDay[], unserved: string[], driving: number, overtime: number, broken: number, total: number }

/**
 * What a plan means: when each visit begins, how much is driven, how much runs over, which promises are broken, and the cost by
 * the instance's weights. A day that cannot be driven (a hard window, too long) costs Infinity.
 * @throws LedgerError `bad_instance`
 */
export function describePlan(instance: PlanInstance, plan: Plan): PlanFacts {
  const p = problemOf(instance)
  const routes = routesOf(p, plan)
  const days = routes.map((route, k): PlanDay => {
    const tech = p.technicians[k]!
    const s = begin(p, k)
    let possible = true
    const stops = route.map((v): PlanStop => {
      const visit = p.visits[v]!
      const drive = p.drive[s.at * p.places + visit.place]!
      const start = step(p, k, v, s)
      if (Number.isNaN(start) || visit.allowed[k] === 0) possible = false
      return { visitId: visit.id, start, finish: start + visit.seconds, drive, late: Math.max(0, start - visit.to) }
    })
    const home = route.length && tech.end >= 0 ? p.drive[s.at * p.places + tech.end]! : 0
    const pauses = tech.breaks.slice(s.pause).reduce((t, b) => (t >= b.from ? t + b.seconds : t), s.t)
    const end = route.length ? pauses + home : tech.from
    return { technicianId: tech.id, stops, driving: s.drive + home, work: s.work, overtime: Math.max(0, end - tech.to), broken: s.broken, end, cost: possible ? finish(p, k, s) : Infinity }
  })
  const sum = (key: 'driving' | 'overtime' | 'broken' | 'cost') => days.reduce((a, d) => a + d[key], 0)
  const served = new Set(routes.flat())
  const left = p.visits.filter((_, i) => !served.has(i))
  return { days, unserved: left.map(v => v.id), driving: sum('driving'), overtime: sum('overtime'), broken: sum('broken') + left.filter(v => v.promised).length, total: sum('cost') + left.reduce((a, v) => a + v.unserved, 0) }
}
