// Taking visits out of a plan, so that they can be put in better.
import type { Problem } from './problem'

/** For each visit all others, the nearest by driving first. */
export function neighbours(p: Problem): Int32Array[] {
  return p.visits.map((a) => {
    const far = p.visits.map(
      (b) => p.drive[a.place * p.places + b.place]! + p.drive[b.place * p.places + a.place]!,
    )
    return Int32Array.from(p.visits.map((_, i) => i).sort((i, j) => far[i]! - far[j]!))
  })
}

/**
 * Takes out strings of neighbouring visits around one place, from several days at once; what is locked stays.
 * Source: slack induction by string removals, J. Christiaens & G. Vanden Berghe, Transportation Science 54 (2020).
 * @returns the visits that were taken out; `routes` is changed, and `touched` says which days
 */
export function removeStrings(
  p: Problem,
  routes: number[][],
  near: Int32Array[],
  where: Int32Array,
  random: () => number,
  touched: Set<number>,
): number[] {
  const served = routes.reduce((n, r) => n + r.length, 0)
  if (served === 0) return []
  const used = routes.reduce((n, r) => n + Number(r.length > 0), 0)
  const longest = Math.max(1, Math.min(10, served / used))
  const most = (4 * 10) / (1 + longest) - 1
  const strings = Math.floor(random() * most + 1)
  const out: number[] = []
  const seed = Math.floor(random() * p.visits.length)
  for (const v of near[seed]!) {
    if (touched.size >= strings) break
    const k = where[v]!
    if (k < 0 || touched.has(k) || p.visits[v]!.locked) continue
    const route = routes[k]!
    const length = Math.floor(random() * Math.min(route.length, longest) + 1)
    const i = route.indexOf(v)
    // A string of that length that holds the visit; sometimes with some of its middle left in.
    const kept =
      length > 1 && length < route.length && random() < 0.5
        ? 1 + Math.floor(random() * Math.max(1, route.length - length))
        : 0
    const span = Math.min(route.length, length + kept)
    const from = Math.max(0, Math.min(route.length - span, i - Math.floor(random() * span)))
    const keepFrom = from + Math.floor(random() * (span - kept + 1))
    const rest: number[] = []
    for (let j = 0; j < route.length; j++) {
      const u = route[j]!
      const inside = j >= from && j < from + span && !(kept && j >= keepFrom && j < keepFrom + kept)
      if ((inside || u === v) && !p.visits[u]!.locked) {
        out.push(u)
        where[u] = -1
      } else rest.push(u)
    }
    routes[k] = rest
    touched.add(k)
  }
  return out
}
/** Takes out visits anywhere, by chance. */
export function removeAny(
  p: Problem,
  routes: number[][],
  where: Int32Array,
  count: number,
  random: () => number,
  touched: Set<number>,
): number[] {
  const served = p.visits.flatMap((v, i) => (where[i]! >= 0 && !v.locked ? [i] : []))
  const out: number[] = []
  for (let n = 0; n < count && served.length; n++) {
    const [v] = served.splice(Math.floor(random() * served.length), 1)
    const k = where[v!]!
    routes[k] = routes[k]!.filter((u) => u !== v)
    touched.add(k)
    where[v!] = -1
    out.push(v!)
  }
  return out
}
/** Empties whole days, so that others take them over: who drives at all decides much of the driving. */
export function removeDays(
  p: Problem,
  routes: number[][],
  where: Int32Array,
  count: number,
  random: () => number,
  touched: Set<number>,
): number[] {
  const used = routes.flatMap((r, k) => (r.length ? [k] : []))
  const out: number[] = []
  for (let n = 0; n < count && used.length; n++) {
    const [k] = used.splice(Math.floor(random() * used.length), 1)
    const rest: number[] = []
    for (const v of routes[k!]!) {
      if (p.visits[v]!.locked) rest.push(v)
      else {
        out.push(v)
        where[v] = -1
      }
    }
    routes[k!] = rest
    touched.add(k!)
  }
  return out
}
