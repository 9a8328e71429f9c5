// The cheapest place for a visit in a day, and filling a plan by it.
import type { Attempt } from './attempt'
import { begin, copy, drive as emptyDrive, finish, step } from './driveRoute'
import type { Problem } from './problem'

const prefix = emptyDrive()
const tail = emptyDrive()
const detours: number[] = []
/** Where `cheapest` found its place. */
const found = { position: -1, cost: Infinity }

/** Whether the visit may be this technician's at all; two of a crew are never one person. */
function mayJoin(p: Problem, k: number, v: number, route: readonly number[]): boolean {
  const visit = p.visits[v]!
  if (visit.allowed[k] === 0) return false
  if (visit.crew >= 0) for (const u of route) if (p.visits[u]!.crew === visit.crew) return false
  return true
}
/** Works out the detour of every position, and says which is the last that costs less than the bound: -1 when none does. */
function lastWithin(a: Attempt, k: number, v: number, bound: number): number {
  const { places, drive, visits, technicians } = a.p
  const route = a.routes[k]!
  const tech = technicians[k]!
  const { place } = visits[v]!
  let last = -1
  let from = tech.start
  for (let i = 0; i <= route.length; i++) {
    const to = i < route.length ? visits[route[i]!]!.place : tech.end
    const was = to < 0 || !route.length ? 0 : drive[from * places + to]!
    const on = to < 0 ? 0 : drive[place * places + to]!
    const detour = drive[from * places + place]! + on - was
    detours[i] = detour
    if (detour < bound) last = i
    from = to
  }
  return last
}
/** Drives the day with the visit at that position, from where `prefix` has come to; keeps it as found when it is cheaper. */
function tryAt(a: Attempt, k: number, v: number, i: number): void {
  const route = a.routes[k]!
  copy(prefix, tail)
  let fits = !Number.isNaN(step(a.p, k, v, tail))
  for (let j = i; fits && j < route.length; j++) fits = !Number.isNaN(step(a.p, k, route[j]!, tail))
  if (!fits) return
  const cost = finish(a.p, k, tail)
  if (cost >= found.cost) return
  found.cost = cost
  found.position = i
}
interface Bounds {
  /** what the whole day may cost at most */
  readonly limit: number
  /** share of positions that are passed over by chance: it keeps the search from always doing the same */
  readonly blink: number
}
/**
 * The cheapest position for a visit in a technician's day; `found.cost` is what the whole day costs then, Infinity where it
 * fits nowhere for less than the limit. A position whose detour alone costs too much is not driven through: putting a visit
 * in makes nothing else cheaper.
 */
function cheapest(a: Attempt, k: number, v: number, { limit, blink }: Bounds): void {
  const { p, random } = a
  const [route, now] = [a.routes[k]!, a.costs[k]!]
  const weight = p.weights.driving
  found.position = -1
  found.cost = limit
  if (!mayJoin(p, k, v, route)) return
  const visit = p.visits[v]!
  // First only the detours, which cost next to nothing to look at: most days need not be driven through at all.
  const last = lastWithin(a, k, v, (limit - now) / weight)
  if (last >= 0) begin(p, k, prefix)
  for (let i = 0; i <= last; i++) {
    const promising = now + weight * detours[i]! < found.cost
    if (promising && (blink === 0 || random() >= blink)) tryAt(a, k, v, i)
    if (i === route.length) break
    const begun = step(p, k, route[i]!, prefix)
    // Later than this it cannot begin in its hard window any more.
    const over = visit.hard && begun + p.visits[route[i]!]!.seconds > visit.to
    if (Number.isNaN(begun) || over) break
  }
  if (found.position < 0) found.cost = Infinity
}

/** Puts the visits in, one after the other, each at its cheapest place; one that costs more than to leave it out stays out. */
export function fillGreedily(a: Attempt, order: readonly number[], blink: number): number[] {
  const { p, routes, costs } = a
  const out: number[] = []
  for (const v of order) {
    let best = p.visits[v]!.unserved
    let bestK = -1
    let position = -1
    let cost = 0
    for (let k = 0; k < routes.length; k++) {
      cheapest(a, k, v, { limit: costs[k]! + best, blink })
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

/** A visit that waits: what each technician's day would cost more with it, and where in it it would stand. */
interface Waiting {
  readonly v: number
  readonly delta: Float64Array
  readonly position: Int32Array
}
/** Its best technician, -1 for none, and how much would be lost if it had to be the second: -1 where there is none. */
function regretOf({ delta }: Waiting, without: number): { k: number; regret: number } {
  let first = without
  let second = without
  let best = -1
  for (let k = 0; k < delta.length; k++) {
    const d = delta[k]!
    if (d < first) {
      second = first
      first = d
      best = k
    } else if (d < second) second = d
  }
  return { k: best, regret: best < 0 ? -1 : second - first }
}
/** Who is put in next, and with whom. */
function mostRegretted(p: Problem, left: readonly Waiting[]): { at: number; k: number } {
  let most = -Infinity
  const next = { at: -1, k: -1 }
  left.forEach((one, at) => {
    const { k, regret } = regretOf(one, p.visits[one.v]!.unserved)
    if (regret <= most) return
    most = regret
    next.at = at
    next.k = k
  })
  return next
}
/**
 * Puts the visits in, always the one first that would lose most by waiting: the difference between its best technician and its second.
 * Source: regret-2 insertion, J.-Y. Potvin & J.-M. Rousseau, European Journal of Operational Research 66 (1993).
 */
export function fillByRegret(a: Attempt, waiting: readonly number[]): number[] {
  const { p, routes, costs } = a
  const days = routes.length
  const look = (one: Waiting, k: number) => {
    cheapest(a, k, one.v, { limit: Infinity, blink: 0 })
    one.delta[k] = found.cost - costs[k]!
    one.position[k] = found.position
  }
  const left = waiting.map((v) => ({
    v,
    delta: new Float64Array(days),
    position: new Int32Array(days),
  }))
  for (const one of left) for (let k = 0; k < days; k++) look(one, k)
  const out: number[] = []
  while (left.length) {
    const { at, k } = mostRegretted(p, left)
    const [one] = left.splice(at, 1)
    if (k < 0) {
      out.push(one!.v)
      continue
    }
    routes[k]!.splice(one!.position[k]!, 0, one!.v)
    costs[k] = costs[k]! + one!.delta[k]!
    for (const other of left) look(other, k)
  }
  return out
}
