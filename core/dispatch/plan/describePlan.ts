import { driveThrough } from './driveRoute'
import { halfCrews } from './crews'
import type { Plan, PlanInstance } from './instance'
import { problemOf, routesOf } from './problem'

export interface PlanStop {
  visitId: string
  start: number
  finish: number
  drive: number
  late: number
}
export interface PlanDay {
  technicianId: string
  stops: PlanStop[]
  driving: number
  work: number
  overtime: number
  broken: number
  end: number
  cost: number
}
export interface PlanFacts {
  days: PlanDay[]
  unserved: string[]
  driving: number
  overtime: number
  broken: number
  total: number
}

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
    const driven = driveThrough(p, k, route)
    const stops = route.map((v, i): PlanStop => {
      const visit = p.visits[v]!
      const start = driven.starts[i]!
      const before = i === 0 ? tech.start : p.visits[route[i - 1]!]!.place
      return {
        visitId: visit.id,
        start,
        finish: start + visit.seconds,
        drive: p.drive[before * p.places + visit.place]!,
        late: Math.max(0, start - visit.to),
      }
    })
    return {
      technicianId: tech.id,
      stops,
      driving: driven.driving,
      work: driven.work,
      overtime: Number.isNaN(driven.over) ? 0 : driven.over,
      broken: driven.broken,
      end: driven.end,
      cost: driven.cost,
    }
  })
  const sum = (key: 'driving' | 'overtime' | 'broken' | 'cost') =>
    days.reduce((a, d) => a + d[key], 0)
  const served = new Set(routes.flat())
  const left = p.visits.filter((_, i) => !served.has(i))
  const half = halfCrews(p, served).reduce((a, v) => a + p.visits[v]!.unserved, 0)
  return {
    days,
    unserved: left.map((v) => v.id),
    driving: sum('driving'),
    overtime: sum('overtime'),
    broken: sum('broken') + left.filter((v) => v.promised).length,
    total: sum('cost') + half + left.reduce((a, v) => a + v.unserved, 0),
  }
}
