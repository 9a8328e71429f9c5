// A road network: nodes where lines meet, edges with their seconds, and the shortest drive over them.
import { LedgerError } from '../errors/LedgerError'
import { greatCircle, type Place } from './greatCircle'

/** Edges of node i are first[i] … first[i + 1] - 1. */
interface Edges {
  first: Int32Array
  to: Int32Array
  seconds: Float64Array
}
export interface Roads extends Edges {
  lat: Float64Array
  lon: Float64Array
  /** the same edges, the other way round */
  back: Edges
  /** fastest speed on any road, metres per second: what a drive can do at best */
  fastest: number
  /** nodes of the largest connected part; only these are used */
  usable: Uint8Array
  /** how many parts hang together with nothing */
  parts: number
  lines: number
  grid: Map<string, number[]>
}
/** Speed where a road says none: a county road (our own assumption). */
const DEFAULT_KMH = 60
/** Farther than this from any road, a place is not covered. */
export const COVERED_WITHIN_M = 3000
/** From the door to the road. */
const YARD_MS = 20 / 3.6
const CELL = 0.03
const cell = (lat: number, lon: number) => `${Math.floor(lat / CELL)} ${Math.floor(lon / CELL)}`
const refuse = (message: string): never => {
  throw new LedgerError('bad_roads', 422, message)
}
type Feature = {
  geometry?: { type?: string; coordinates?: unknown }
  properties?: { speed?: unknown; oneway?: unknown; kind?: unknown } | null
}

/**
 * Reads a network from GeoJSON: a FeatureCollection of LineStrings and MultiLineStrings, `speed` in km/h (60 when not said),
 * `oneway` true where it is; lines of the `kind` "water" are ground to look at, not roads. Lines are joined where they share a position. A network in several parts is taken, and its largest part
 * used: `parts` says how many there are.
 * @throws LedgerError `bad_roads` with a sentence: no FeatureCollection, no lines, positions outside the globe, too many
 * Source of the format: RFC 7946.
 */
export function readRoads(data: unknown, mostNodes = 2_000_000): Roads {
  const features =
    (data as { type?: string; features?: Feature[] } | null)?.type === 'FeatureCollection'
      ? (data as { features?: Feature[] }).features
      : undefined
  if (!Array.isArray(features)) return refuse('The file is not a GeoJSON FeatureCollection.')
  const index = new Map<string, number>()
  const lat: number[] = []
  const lon: number[] = []
  const edges: [number, number, number][] = []
  let fastest = 0
  let lines = 0
  const node = (position: unknown): number => {
    const [x, y] = Array.isArray(position) ? (position as number[]) : []
    if (
      typeof x !== 'number' ||
      typeof y !== 'number' ||
      !(Math.abs(x) <= 180 && Math.abs(y) <= 90)
    )
      return refuse('A position is not longitude and latitude in degrees.')
    const key = `${Math.round(x * 1e6)} ${Math.round(y * 1e6)}`
    const known = index.get(key)
    if (known !== undefined) return known
    if (lat.length >= mostNodes)
      return refuse(`The network has more than ${mostNodes} positions. Take a smaller area.`)
    index.set(key, lat.length)
    lat.push(y)
    lon.push(x)
    return lat.length - 1
  }
  for (const f of features) {
    if (f.properties?.kind === 'water') continue
    const kind = f.geometry?.type
    const several = kind === 'MultiLineString' ? (f.geometry!.coordinates as unknown[]) : []
    const rows = kind === 'LineString' ? [f.geometry!.coordinates] : several
    const kmh = Number(f.properties?.speed ?? DEFAULT_KMH)
    if (!(kmh > 0 && kmh <= 300))
      refuse(
        `A road has the speed ${String(f.properties?.speed)}; it should be in km/h, up to 300.`,
      )
    fastest = Math.max(fastest, rows.length ? kmh / 3.6 : 0)
    for (const row of rows as unknown[]) {
      if (!Array.isArray(row) || row.length < 2) refuse('A line has fewer than two positions.')
      lines++
      const nodes = (row as unknown[]).map(node)
      for (let i = 1; i < nodes.length; i++) {
        const [a, b] = [nodes[i - 1]!, nodes[i]!]
        if (a === b) continue
        const s =
          greatCircle({ lat: lat[a]!, lon: lon[a]! }, { lat: lat[b]!, lon: lon[b]! }) / (kmh / 3.6)
        edges.push([a, b, s])
        if (f.properties?.oneway !== true) edges.push([b, a, s])
      }
    }
  }
  if (!edges.length) return refuse('The file has no lines to drive on.')
  const n = lat.length
  const { usable, parts } = largestPart(n, edges)
  const grid = new Map<string, number[]>()
  for (let i = 0; i < n; i++) {
    if (!usable[i]) continue
    const key = cell(lat[i]!, lon[i]!)
    const some = grid.get(key)
    if (some) some.push(i)
    else grid.set(key, [i])
  }
  return {
    lat: Float64Array.from(lat),
    lon: Float64Array.from(lon),
    ...inRows(n, edges),
    back: inRows(
      n,
      edges.map(([a, b, s]) => [b, a, s]),
    ),
    fastest,
    usable,
    parts,
    lines,
    grid,
  }
}
function inRows(n: number, edges: readonly [number, number, number][]): Edges {
  const first = new Int32Array(n + 1)
  for (const [a] of edges) first[a + 1]!++
  for (let i = 0; i < n; i++) first[i + 1]! += first[i]!
  const at = first.slice()
  const to = new Int32Array(edges.length)
  const seconds = new Float64Array(edges.length)
  for (const [a, b, s] of edges) {
    to[at[a]!] = b
    seconds[at[a]!] = s
    at[a]!++
  }
  return { first, to, seconds }
}
/** Which nodes hang together with the most others, whichever way the roads run. */
function largestPart(
  n: number,
  edges: [number, number, number][],
): { usable: Uint8Array; parts: number } {
  const root = Int32Array.from({ length: n }, (_, i) => i)
  const find = (i: number): number => {
    let r = i
    while (root[r] !== r) r = root[r]!
    while (root[i] !== r) {
      const next = root[i]!
      root[i] = r
      i = next
    }
    return r
  }
  for (const [a, b] of edges) root[find(a)] = find(b)
  const size = new Map<number, number>()
  for (let i = 0; i < n; i++) size.set(find(i), (size.get(find(i)) ?? 0) + 1)
  const largest = [...size].reduce((a, b) => (b[1] > a[1] ? b : a))[0]
  return {
    usable: Uint8Array.from({ length: n }, (_, i) => Number(find(i) === largest)),
    parts: size.size,
  }
}

/** The nearest node of the network and how far it is, or null where no road is near enough. */
export function nearestNode(roads: Roads, place: Place): { node: number; metres: number } | null {
  let best: { node: number; metres: number } | null = null
  const reach = Math.ceil(COVERED_WITHIN_M / 111_000 / CELL) + 1
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach * 2; dx <= reach * 2; dx++) {
      for (const i of roads.grid.get(cell(place.lat + dy * CELL, place.lon + dx * CELL)) ?? []) {
        const metres = greatCircle(place, { lat: roads.lat[i]!, lon: roads.lon[i]! })
        if (metres <= COVERED_WITHIN_M && (!best || metres < best.metres))
          best = { node: i, metres }
      }
    }
  }
  return best
}

/** A heap of nodes by their cost; a node may stand in it more than once, the cheapest counts. */
class Heap {
  private cost: number[] = []
  private item: number[] = []
  get size(): number {
    return this.cost.length
  }
  push(cost: number, item: number): void {
    let i = this.cost.length
    while (i > 0) {
      const up = (i - 1) >> 1
      if (this.cost[up]! <= cost) break
      this.cost[i] = this.cost[up]!
      this.item[i] = this.item[up]!
      i = up
    }
    this.cost[i] = cost
    this.item[i] = item
  }

  pop(): { cost: number; item: number } {
    const top = { cost: this.cost[0]!, item: this.item[0]! }
    const cost = this.cost.pop()!
    const item = this.item.pop()!
    const n = this.cost.length
    if (n > 0) {
      let i = 0
      for (;;) {
        let child = 2 * i + 1
        if (child >= n) break
        if (child + 1 < n && this.cost[child + 1]! < this.cost[child]!) child++
        if (this.cost[child]! >= cost) break
        this.cost[i] = this.cost[child]!
        this.item[i] = this.item[child]!
        i = child
      }
      this.cost[i] = cost
      this.item[i] = item
    }
    return top
  }
}
/**
 * Seconds from one node to others along the shortest ways; Infinity where none leads. It ends once all that were asked for are reached.
 * Source: E. W. Dijkstra, Numerische Mathematik 1 (1959).
 * @param guess the least that is left from a node to the only target, when there is one (A*: Hart, Nilsson & Raphael 1968)
 * @param trace when given, filled with the node before each one on its shortest way
 */
export function drivesFrom(
  roads: Edges,
  from: number,
  targets: readonly number[],
  guess: (node: number) => number = () => 0,
  trace?: Int32Array,
): number[] {
  const n = roads.first.length - 1
  const known = new Float64Array(n).fill(Infinity)
  const settled = new Uint8Array(n)
  const wanted = new Uint8Array(n)
  let left = 0
  for (const t of targets) {
    if (t < 0 || wanted[t]) continue
    wanted[t] = 1
    left++
  }
  const { first, to, seconds } = roads
  const heap = new Heap()
  known[from] = 0
  heap.push(guess(from), from)
  while (heap.size && left > 0) {
    const { item: u } = heap.pop()
    if (settled[u]) continue
    settled[u] = 1
    left -= wanted[u]!
    const base = known[u]!
    for (let e = first[u]!; e < first[u + 1]!; e++) {
      const v = to[e]!
      const cost = base + seconds[e]!
      if (cost < known[v]!) {
        known[v] = cost
        if (trace) trace[v] = u
        heap.push(cost + guess(v), v)
      }
    }
  }
  return targets.map((t) => (t >= 0 && settled[t] ? known[t]! : Infinity))
}
/** Whole minutes as seconds, rounded up, of a drive with the ways from and to the road. */
const whole = (seconds: number, offRoad: number) =>
  Math.ceil((seconds + offRoad / YARD_MS) / 60 - 1e-9) * 60

/**
 * Seconds of driving between two places along the roads, up to the next whole minute; null where the roads do not cover both ends or no
 * way leads there. The same place takes no time. Whoever asks often hands over where the places meet the road.
 * @example roadSeconds(roads, depot, site) ?? driveSeconds(depot, site)
 */
export function roadSeconds(
  roads: Roads,
  a: Place,
  b: Place,
  from: OnRoad = nearestNode(roads, a),
  to: OnRoad = nearestNode(roads, b),
): number | null {
  if (a.lat === b.lat && a.lon === b.lon) return 0
  if (!from || !to) return null
  const [seconds] = drivesFrom(roads, from.node, [to.node], straightTo(roads, to.node))
  return Number.isFinite(seconds!) ? whole(seconds!, from.metres + to.metres) : null
}
const straightTo = (roads: Roads, node: number) => {
  const end = { lat: roads.lat[node]!, lon: roads.lon[node]! }
  return (i: number) => greatCircle({ lat: roads.lat[i]!, lon: roads.lon[i]! }, end) / roads.fastest
}
/**
 * The way of that drive as positions, longitude before latitude as RFC 7946 has it, from door to door; null where the roads know none.
 * @example roadWay(roads, depot, site) ?? [[depot.lon, depot.lat], [site.lon, site.lat]]
 */
export function roadWay(roads: Roads, a: Place, b: Place): [number, number][] | null {
  const [from, to] = [nearestNode(roads, a), nearestNode(roads, b)]
  if (!from || !to) return null
  const before = new Int32Array(roads.lat.length).fill(-1)
  const [seconds] = drivesFrom(roads, from.node, [to.node], straightTo(roads, to.node), before)
  if (!Number.isFinite(seconds!)) return null
  const way: [number, number][] = []
  for (let n = to.node; n >= 0; n = n === from.node ? -1 : before[n]!)
    way.push([roads.lon[n]!, roads.lat[n]!])
  return [[a.lon, a.lat], ...way.reverse(), [b.lon, b.lat]]
}
/** A place as the roads see it: its nearest node, found once for many drives. */
export type OnRoad = ReturnType<typeof nearestNode>
/**
 * Drives between one place and many, both ways, in two searches instead of two for each: seconds there and back, null where the roads
 * know none.
 * @example roadFan(roads, nearestNode(roads, site), others.map(p => nearestNode(roads, p))).to[0] // 540
 */
export function roadFan(
  roads: Roads,
  hub: OnRoad,
  others: readonly OnRoad[],
): { to: (number | null)[]; from: (number | null)[] } {
  const targets = others.map((o) => o?.node ?? -1)
  const say = (reached: readonly number[]) =>
    others.map((o, i) =>
      hub && o && Number.isFinite(reached[i]!) ? whole(reached[i]!, hub.metres + o.metres) : null,
    )
  return hub
    ? {
        to: say(drivesFrom(roads, hub.node, targets)),
        from: say(drivesFrom(roads.back, hub.node, targets)),
      }
    : { to: say([]), from: say([]) }
}
/** All drives between places, row by row; what the roads do not cover is asked of `otherwise`. */
export function roadMatrix(
  roads: Roads,
  places: readonly Place[],
  otherwise: (a: Place, b: Place) => number,
): Float64Array {
  const nodes = places.map((p) => nearestNode(roads, p))
  const out = new Float64Array(places.length ** 2)
  places.forEach((a, i) => {
    const from = nodes[i]
    const reached = from
      ? drivesFrom(
          roads,
          from.node,
          nodes.map((n) => n?.node ?? -1),
        )
      : []
    places.forEach((b, j) => {
      const to = nodes[j]
      const same = a.lat === b.lat && a.lon === b.lon
      const joined = from && to && Number.isFinite(reached[j]!)
      const drive = () => (joined ? whole(reached[j]!, from.metres + to.metres) : otherwise(a, b))
      out[i * places.length + j] = same ? 0 : drive()
    })
  })
  return out
}
