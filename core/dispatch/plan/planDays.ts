import { halfCrews } from './crews'
import { routeCost } from './driveRoute'
import { fillByRegret, fillGreedily } from './insertion'
import type { Plan, PlanInstance } from './instance'
import { planOf, problemOf, routesOf, type Problem } from './problem'
import { neighbours, removeAny, removeDays, removeStrings } from './removal'

export interface PlanProgress {
  plan: Plan
  cost: number
  tries: number
}

/** What visits cost that are served by half of their crew. */
const halfCost = (p: Problem, served: ReadonlySet<number>): number =>
  halfCrews(p, served).reduce((sum, v) => sum + p.visits[v]!.unserved, 0)
/** The cost of a plan in indices: its days, and what it leaves out. */
export function costOf(p: Problem, routes: readonly (readonly number[])[]): number {
  const served = new Set(routes.flat())
  return (
    routes.reduce((sum, r, k) => sum + routeCost(p, k, r), 0) +
    halfCost(p, served) +
    p.visits.reduce((sum, v, i) => sum + (served.has(i) ? 0 : v.unserved), 0)
  )
}

/**
 * Plans days: which technician makes which visits in which order, at the least cost as the weights state it. Built by regret
 * insertion, then improved by taking out and putting in again, accepting what is worse less and less often.
 *
 * The search knows no clock: it is a generator that says now and then how far it has come, and is told how much of its time
 * has passed, from 0 to 1; at 1 it returns the best plan. Left between two steps, the last plan that it said is valid.
 * The same instance, seed and answers give the same plan. The plan is never worse than `given`.
 * @param options.given the plan as it stands; what is locked stays where it has it
 * @param options.random a source in [0, 1)
 * @param options.every how many tries between two reports
 * @throws LedgerError `bad_instance`
 * @example
 * const search = planDays(instance, { random: seeded(1) })
 * let report = search.next()
 * for (let i = 1; !report.done; i++) report = search.next(i / 50)
 * report.value.plan.routes // [{ technicianId: 'ines', visitIds: ['a', 'c'] }, …]
 * Source: removal and blinks of Christiaens & Vanden Berghe (2020), regret insertion of Potvin & Rousseau (1993), simulated annealing
 * of Kirkpatrick, Gelatt & Vecchi, Science 220 (1983).
 */
export function* planDays(
  instance: PlanInstance,
  options: { given?: Plan; random: () => number; every?: number },
): Generator<PlanProgress, PlanProgress, number> {
  const p = problemOf(instance)
  const { random } = options
  const every = options.every ?? 200
  const given = options.given ? routesOf(p, options.given) : null
  // What is locked stands where the given plan has it; all else is put in around it.
  let routes: number[][] = given
    ? given.map((r) => r.filter((v) => p.visits[v]!.locked))
    : p.technicians.map(() => [])
  let costs = routes.map((r, k) => routeCost(p, k, r))
  const standing = new Set(routes.flat())
  let out = fillByRegret(
    p,
    routes,
    costs,
    p.visits.flatMap((_, i) => (standing.has(i) ? [] : [i])),
    random,
  )
  const total = (c: number[], o: number[], r: number[][]) =>
    c.reduce((a, b) => a + b, 0) +
    o.reduce((a, v) => a + p.visits[v]!.unserved, 0) +
    (p.crews ? halfCost(p, new Set(r.flat())) : 0)
  let cost = total(costs, out, routes)
  if (given && costOf(p, given) <= cost) {
    routes = given.map((r) => [...r])
    costs = routes.map((r, k) => routeCost(p, k, r))
    const served = new Set(routes.flat())
    out = p.visits.flatMap((_, i) => (served.has(i) ? [] : [i]))
    cost = total(costs, out, routes)
  }
  let best = routes.map((r) => [...r])
  let bestCost = cost
  const near = neighbours(p)
  const where = new Int32Array(p.visits.length).fill(-1)
  const meanLeg =
    p.visits.length && p.places > 1
      ? (p.drive.reduce((a, b) => a + b, 0) / (p.places * (p.places - 1))) * p.weights.driving
      : 1
  const [hot, cold] = [Math.max(1e-9, meanLeg), Math.max(1e-10, meanLeg * 0.002)]
  let temperature = hot
  let tries = 0
  const report = (): PlanProgress => {
    // Whoever is served by half of a crew is not served: nobody is sent for it.
    const half = new Set(halfCrews(p, new Set(best.flat())))
    if (half.size === 0) return { plan: planOf(p, best), cost: bestCost, tries }
    const whole = best.map((r) => r.filter((v) => !half.has(v)))
    return { plan: planOf(p, whole), cost: costOf(p, whole), tries }
  }
  const removeSome = (next: number[][], touched: Set<number>): number[] => {
    const by = random()
    if (by < 0.8) return removeStrings(p, next, near, where, random, touched)
    if (by < 0.92) return removeDays(p, next, where, random() < 0.6 ? 1 : 2, random, touched)
    const most = Math.min(12, 1 + p.visits.length / 4)
    return removeAny(p, next, where, 1 + Math.floor(random() * most), random, touched)
  }
  let passed = yield report()
  while (passed < 1 && p.visits.some((v) => !v.locked)) {
    temperature = hot * (cold / hot) ** Math.max(0, passed)
    for (let n = 0; n < every; n++) {
      tries++
      const next = routes.slice()
      const touched = new Set<number>()
      where.fill(-1)
      for (let k = 0; k < next.length; k++) for (const v of next[k]!) where[v] = k
      const removed = removeSome(next, touched)
      const nextCosts = costs.slice()
      for (const k of touched) nextCosts[k] = routeCost(p, k, next[k]!)
      for (let k = 0; k < next.length; k++) if (!touched.has(k)) next[k] = next[k]!.slice()
      const waiting = [...removed, ...out]
      const nextOut =
        random() < 0.1
          ? fillByRegret(p, next, nextCosts, waiting, random)
          : fillGreedily(p, next, nextCosts, ordered(p, waiting, random), 0.01, random)
      const nextCost = total(nextCosts, nextOut, next)
      if (nextCost < cost - temperature * Math.log(random())) {
        routes = next
        costs = nextCosts
        out = nextOut
        cost = nextCost
        if (cost < bestCost - 1e-9) {
          best = routes.map((r) => [...r])
          bestCost = cost
        }
      }
    }
    passed = yield report()
  }
  return report()
}
/** The order in which visits are put in again: by chance, the hardest to place first, the tightest window first, the longest first. */
function ordered(p: Problem, visits: number[], random: () => number): number[] {
  const by = random()
  if (by < 0.4) {
    for (let i = visits.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1))
      const held = visits[i]!
      visits[i] = visits[j]!
      visits[j] = held
    }
    return visits
  }
  const first = visits.map((v) => [v, random()] as const)
  const key = (v: number) => {
    const x = p.visits[v]!
    if (by < 0.6) return x.to - x.from
    if (by < 0.75) return x.from
    if (by < 0.9) return -x.seconds - x.load
    return x.allowed.reduce((a, b) => a + b, 0)
  }
  return first.sort((a, b) => key(a[0]) - key(b[0]) || a[1] - b[1]).map(([v]) => v)
}
