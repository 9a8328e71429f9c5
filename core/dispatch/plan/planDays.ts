import { waitingIn, type Attempt } from './attempt'
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

/** A plan in indices, what it leaves out, and what all of it costs. */
interface State {
  readonly routes: number[][]
  readonly costs: number[]
  readonly out: readonly number[]
  readonly cost: number
}
const copied = (routes: readonly (readonly number[])[]) => routes.map((r) => [...r])
function stateOf(p: Problem, routes: number[][], costs: number[], out: readonly number[]): State {
  const days = costs.reduce((a, b) => a + b, 0)
  const left = out.reduce((a, v) => a + p.visits[v]!.unserved, 0)
  const half = p.crews ? halfCost(p, new Set(routes.flat())) : 0
  return { routes, costs, out, cost: days + left + half }
}
const attempt = (p: Problem, random: () => number, routes: number[][]): Attempt => ({
  p,
  random,
  routes,
  costs: routes.map((r, k) => routeCost(p, k, r)),
  where: new Int32Array(p.visits.length).fill(-1),
  touched: new Set(),
})
/** Where the search begins: what is locked as the given plan has it and all else put in around it, or that plan where it is no dearer. */
function firstState(p: Problem, random: () => number, given: number[][] | null): State {
  const locked = given?.map((r) => r.filter((v) => p.visits[v]!.locked))
  const a = attempt(p, random, locked ?? p.technicians.map(() => []))
  const out = fillByRegret(a, waitingIn(p, a.routes))
  const built = stateOf(p, a.routes, a.costs, out)
  if (!given || costOf(p, given) > built.cost) return built
  const { routes, costs } = attempt(p, random, copied(given))
  return stateOf(p, routes, costs, waitingIn(p, routes))
}
/** What a drive costs on the average: the measure of how much worse a step may be at first. */
function meanLegCost(p: Problem): number {
  if (!p.visits.length || p.places < 2) return 1
  const legs = p.places * (p.places - 1)
  return (p.drive.reduce((a, b) => a + b, 0) / legs) * p.weights.driving
}
function removeSome(a: Attempt, near: readonly Int32Array[]): number[] {
  const { random } = a
  const by = random()
  if (by < 0.8) return removeStrings(a, near)
  if (by < 0.92) return removeDays(a, random() < 0.6 ? 1 : 2)
  const most = Math.min(12, 1 + a.p.visits.length / 4)
  return removeAny(a, 1 + Math.floor(random() * most))
}
/** Takes some visits out, puts them in again with those that wait, and says what came of it. */
function changed(
  from: State,
  p: Problem,
  near: readonly Int32Array[],
  random: () => number,
): State {
  const routes = from.routes.slice()
  const costs = from.costs.slice()
  const where = new Int32Array(p.visits.length).fill(-1)
  for (let k = 0; k < routes.length; k++) for (const v of routes[k]!) where[v] = k
  const a: Attempt = { p, random, routes, costs, where, touched: new Set() }
  const waiting = [...removeSome(a, near), ...from.out]
  for (const k of a.touched) costs[k] = routeCost(p, k, routes[k]!)
  // Days that nothing was taken out of are still those of the state before.
  for (let k = 0; k < routes.length; k++) if (!a.touched.has(k)) routes[k] = routes[k]!.slice()
  const out =
    random() < 0.1 ? fillByRegret(a, waiting) : fillGreedily(a, ordered(p, waiting, random), 0.01)
  return stateOf(p, routes, costs, out)
}
/** Whoever is served by half of a crew is not served: nobody is sent for it. */
function reported(p: Problem, best: State, tries: number): PlanProgress {
  const half = new Set(halfCrews(p, new Set(best.routes.flat())))
  if (half.size === 0) return { plan: planOf(p, best.routes), cost: best.cost, tries }
  const whole = best.routes.map((r) => r.filter((v) => !half.has(v)))
  return { plan: planOf(p, whole), cost: costOf(p, whole), tries }
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
  const { random, every = 200 } = options
  let now = firstState(p, random, options.given ? routesOf(p, options.given) : null)
  let best = { ...now, routes: copied(now.routes) }
  const near = neighbours(p)
  const meanLeg = meanLegCost(p)
  const [hot, cold] = [Math.max(1e-9, meanLeg), Math.max(1e-10, meanLeg * 0.002)]
  let tries = 0
  let passed = yield reported(p, best, tries)
  while (passed < 1 && p.visits.some((v) => !v.locked)) {
    const temperature = hot * (cold / hot) ** Math.max(0, passed)
    for (let n = 0; n < every; n++) {
      tries++
      const next = changed(now, p, near, random)
      // A worse one is accepted by chance: less and less often, the colder it gets.
      if (!(next.cost < now.cost - temperature * Math.log(random()))) continue
      now = next
      if (now.cost < best.cost - 1e-9) best = { ...now, routes: copied(now.routes) }
    }
    passed = yield reported(p, best, tries)
  }
  return reported(p, best, tries)
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
