// The cheapest place for a visit in a day, and filling a plan by it.
import { begin, copy, drive as emptyDrive, finish, step } from './driveRoute'
import type { Problem } from './problem'

const prefix = emptyDrive()
const tail = emptyDrive()
const detours: number[] = []
/** Where `cheapest` found its place. */
export const found = { position: -1, cost: Infinity }

/**
 * The cheapest position for a visit in a route; `found.cost` is what the whole route costs then, Infinity where it fits nowhere
 * for less than `limit`. A position whose detour alone costs too much is not driven through: putting a visit in makes nothing else cheaper.
 * @param now what the route costs without it
 * @param blink share of positions that are passed over by chance: it keeps the search from always doing the same
 */
export function cheapest(
  p: Problem,
  k: number,
  route: readonly number[],
  now: number,
  v: number,
  limit: number,
  blink: number,
  random: () => number,
): void {
  found.position = -1
  found.cost = limit
  const visit = p.visits[v]!
  if (visit.allowed[k] === 0) return
  if (visit.crew >= 0) for (const u of route) if (p.visits[u]!.crew === visit.crew) return
  const tech = p.technicians[k]!
  const { places, drive } = p
  const weight = p.weights.driving
  // First only the detours, which cost next to nothing to look at: most days need not be driven through at all.
  const bound = (limit - now) / weight
  let last = -1
  let from = tech.start
  for (let i = 0; i <= route.length; i++) {
    const to = i < route.length ? p.visits[route[i]!]!.place : tech.end
    const detour =
      drive[from * places + visit.place]! +
      (to < 0
        ? 0
        : drive[visit.place * places + to]! - (route.length ? drive[from * places + to]! : 0))
    detours[i] = detour
    if (detour < bound) last = i
    from = to
  }
  if (last < 0) {
    found.cost = Infinity
    return
  }
  begin(p, k, prefix)
  for (let i = 0; i <= last; i++) {
    if (now + weight * detours[i]! < found.cost && (blink === 0 || random() >= blink)) {
      copy(prefix, tail)
      let fits = !Number.isNaN(step(p, k, v, tail))
      for (let j = i; fits && j < route.length; j++)
        fits = !Number.isNaN(step(p, k, route[j]!, tail))
      if (fits) {
        const cost = finish(p, k, tail)
        if (cost < found.cost) {
          found.cost = cost
          found.position = i
        }
      }
    }
    if (i === route.length) break
    const begun = step(p, k, route[i]!, prefix)
    // Later than this it cannot begin in its hard window any more.
    if (Number.isNaN(begun) || (visit.hard && begun + p.visits[route[i]!]!.seconds > visit.to))
      break
  }
  if (found.position < 0) found.cost = Infinity
}

/** Puts the visits in, one after the other, each at its cheapest place; one that costs more than to leave it out stays out. */
export function fillGreedily(
  p: Problem,
  routes: number[][],
  costs: number[],
  order: readonly number[],
  blink: number,
  random: () => number,
): number[] {
  const out: number[] = []
  for (const v of order) {
    let best = p.visits[v]!.unserved
    let bestK = -1
    let position = -1
    let cost = 0
    for (let k = 0; k < routes.length; k++) {
      cheapest(p, k, routes[k]!, costs[k]!, v, costs[k]! + best, blink, random)
      if (found.position >= 0) {
        best = found.cost - costs[k]!
        bestK = k
        position = found.position
        cost = found.cost
      }
    }
    if (bestK < 0) out.push(v)
    else {
      routes[bestK]!.splice(position, 0, v)
      costs[bestK] = cost
    }
  }
  return out
}

/**
 * Puts the visits in, always the one first that would lose most by waiting: the difference between its best technician and its second.
 * Source: regret-2 insertion, J.-Y. Potvin & J.-M. Rousseau, European Journal of Operational Research 66 (1993).
 */
export function fillByRegret(
  p: Problem,
  routes: number[][],
  costs: number[],
  waiting: readonly number[],
  random: () => number,
): number[] {
  const K = routes.length
  const left = [...waiting]
  const delta = left.map(() => new Float64Array(K))
  const where = left.map(() => new Int32Array(K))
  const look = (i: number, k: number) => {
    cheapest(p, k, routes[k]!, costs[k]!, left[i]!, Infinity, 0, random)
    delta[i]![k] = found.cost - costs[k]!
    where[i]![k] = found.position
  }
  for (let i = 0; i < left.length; i++) for (let k = 0; k < K; k++) look(i, k)
  const out: number[] = []
  while (left.length) {
    let most = -Infinity
    let pick = -1
    let to = -1
    for (let i = 0; i < left.length; i++) {
      const without = p.visits[left[i]!]!.unserved
      let first = without
      let second = without
      let k1 = -1
      for (let k = 0; k < K; k++) {
        const d = delta[i]![k]!
        if (d < first) {
          second = first
          first = d
          k1 = k
        } else if (d < second) second = d
      }
      const regret = k1 < 0 ? -1 : second - first
      if (regret > most) {
        most = regret
        pick = i
        to = k1
      }
    }
    const v = left[pick]!
    if (to < 0) out.push(v)
    else {
      routes[to]!.splice(where[pick]![to]!, 0, v)
      costs[to] = costs[to]! + delta[pick]![to]!
    }
    left.splice(pick, 1)
    delta.splice(pick, 1)
    where.splice(pick, 1)
    if (to >= 0) for (let i = 0; i < left.length; i++) look(i, to)
  }
  return out
}
