// Taking visits out of a plan, so that they can be put in better.
import type { Attempt } from './attempt'
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

/** Takes out of one day what is not locked and what `goes` names, and says which visits those are. */
function takeOut(a: Attempt, k: number, goes: (v: number, at: number) => boolean): number[] {
  const out: number[] = []
  const rest: number[] = []
  a.routes[k]!.forEach((v, at) => {
    const gone = goes(v, at) && !a.p.visits[v]!.locked
    if (gone) a.where[v] = -1
    ;(gone ? out : rest).push(v)
  })
  a.routes[k] = rest
  a.touched.add(k)
  return out
}
/** A string of neighbouring places in a day that holds its visit `i`; sometimes some of its middle is left in. */
function stringAround(a: Attempt, i: number, day: number, longest: number) {
  const { random } = a
  const length = Math.floor(random() * Math.min(day, longest) + 1)
  const parted = length > 1 && length < day && random() < 0.5
  const kept = parted ? 1 + Math.floor(random() * Math.max(1, day - length)) : 0
  const span = Math.min(day, length + kept)
  const from = Math.max(0, Math.min(day - span, i - Math.floor(random() * span)))
  const keptFrom = from + Math.floor(random() * (span - kept + 1))
  return (at: number) => at >= from && at < from + span && !(at >= keptFrom && at < keptFrom + kept)
}
/**
 * Takes out strings of neighbouring visits around one place, from several days at once; what is locked stays.
 * Source: slack induction by string removals, J. Christiaens & G. Vanden Berghe, Transportation Science 54 (2020).
 * @returns the visits that were taken out
 */
export function removeStrings(a: Attempt, near: readonly Int32Array[]): number[] {
  const { p, routes, where, random, touched } = a
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
    const inString = stringAround(a, routes[k]!.indexOf(v), routes[k]!.length, longest)
    out.push(...takeOut(a, k, (u, at) => u === v || inString(at)))
  }
  return out
}
/** Takes out visits anywhere, by chance. */
export function removeAny(a: Attempt, count: number): number[] {
  const served = a.p.visits.flatMap((v, i) => (a.where[i]! >= 0 && !v.locked ? [i] : []))
  const out: number[] = []
  for (let n = 0; n < count && served.length; n++) {
    const [v] = served.splice(Math.floor(a.random() * served.length), 1)
    out.push(...takeOut(a, a.where[v!]!, (u) => u === v))
  }
  return out
}
/** Empties whole days, so that others take them over: who drives at all decides much of the driving. */
export function removeDays(a: Attempt, count: number): number[] {
  const used = a.routes.flatMap((r, k) => (r.length ? [k] : []))
  const out: number[] = []
  for (let n = 0; n < count && used.length; n++) {
    const [k] = used.splice(Math.floor(a.random() * used.length), 1)
    out.push(...takeOut(a, k!, () => true))
  }
  return out
}
