// A road network out of a GeoJSON file.
import { LedgerError } from '../../errors/LedgerError'
import { greatCircle } from '../greatCircle'
import { cell, type Edges, type Roads } from './network'

/** Speed where a road says none: a county road (our own assumption). */
const DEFAULT_KMH = 60
const refuse = (message: string): never => {
  throw new LedgerError('bad_roads', message)
}
type Feature = {
  geometry?: { type?: string; coordinates?: unknown }
  properties?: { speed?: unknown; oneway?: unknown; kind?: unknown } | null
}

/** One way along a road: from a node to a node, in seconds. */
type Edge = [from: number, to: number, seconds: number]
/** What is gathered while the lines are read. */
class Network {
  readonly lat: number[] = []
  readonly lon: number[] = []
  readonly edges: Edge[] = []
  lines = 0
  /** metres per second */
  fastest = 0
  private readonly nodes = new Map<string, number>()
  constructor(private readonly mostNodes: number) {}

  /** The node at a position; lines that share one meet there. */
  node(position: unknown): number {
    const [x, y] = Array.isArray(position) ? (position as unknown[]) : []
    if (typeof x !== 'number' || typeof y !== 'number' || !isOnGlobe(x, y))
      return refuse('A position is not longitude and latitude in degrees.')
    const key = `${Math.round(x * 1e6)} ${Math.round(y * 1e6)}`
    const known = this.nodes.get(key)
    if (known !== undefined) return known
    if (this.lat.length >= this.mostNodes)
      return refuse(`The network has more than ${this.mostNodes} positions. Take a smaller area.`)
    this.nodes.set(key, this.lat.length)
    this.lat.push(y)
    return this.lon.push(x) - 1
  }
  /** A line of positions that is driven at that speed, in metres per second. */
  line(positions: unknown, speed: number, oneway: boolean): void {
    if (!Array.isArray(positions) || positions.length < 2)
      return refuse('A line has fewer than two positions.')
    this.lines++
    this.fastest = Math.max(this.fastest, speed)
    const nodes = positions.map((position) => this.node(position))
    nodes.slice(1).forEach((b, i) => {
      const a = nodes[i]!
      if (a === b) return
      const seconds = greatCircle(this.place(a), this.place(b)) / speed
      this.edges.push([a, b, seconds])
      if (!oneway) this.edges.push([b, a, seconds])
    })
  }
  private place(node: number) {
    return { lat: this.lat[node]!, lon: this.lon[node]! }
  }
}
const isOnGlobe = (lon: number, lat: number) => Math.abs(lon) <= 180 && Math.abs(lat) <= 90
const featuresIn = (data: unknown): Feature[] => {
  const { type, features } = (data ?? {}) as { type?: string; features?: unknown }
  return type === 'FeatureCollection' && Array.isArray(features)
    ? (features as Feature[])
    : refuse('The file is not a GeoJSON FeatureCollection.')
}
/** A feature's lines, as they stand in it: it may be anything but lines, too. */
function linesOf({ geometry }: Feature): unknown[] {
  if (geometry?.type === 'LineString') return [geometry.coordinates]
  return geometry?.type === 'MultiLineString' ? (geometry.coordinates as unknown[]) : []
}
/** Metres per second. */
function speedOf({ properties }: Feature): number {
  const kmh = Number(properties?.speed ?? DEFAULT_KMH)
  if (!(kmh > 0 && kmh <= 300))
    refuse(`A road has the speed ${String(properties?.speed)}; it should be in km/h, up to 300.`)
  return kmh / 3.6
}
/** Nodes by the square that they lie in. */
function gridOf({ lat, lon }: Network, usable: Uint8Array): Map<string, number[]> {
  const grid = new Map<string, number[]>()
  for (let i = 0; i < lat.length; i++) {
    if (!usable[i]) continue
    const key = cell(lat[i]!, lon[i]!)
    const some = grid.get(key)
    if (some) some.push(i)
    else grid.set(key, [i])
  }
  return grid
}

/**
 * Reads a network from GeoJSON: a FeatureCollection of LineStrings and MultiLineStrings, `speed` in km/h (60 when not said),
 * `oneway` true where it is; lines of the `kind` "water" are ground to look at, not roads. Lines are joined where they share a position. A network in several parts is taken, and its largest part
 * used: `parts` says how many there are.
 * @throws LedgerError `bad_roads` with a sentence: no FeatureCollection, no lines, positions outside the globe, too many
 * Source of the format: RFC 7946.
 */
export function readRoads(data: unknown, mostNodes = 2_000_000): Roads {
  const network = new Network(mostNodes)
  for (const f of featuresIn(data)) {
    if (f.properties?.kind === 'water') continue
    const speed = speedOf(f)
    for (const positions of linesOf(f))
      network.line(positions, speed, f.properties?.oneway === true)
  }
  const { lat, lon, edges, lines, fastest } = network
  if (!edges.length) return refuse('The file has no lines to drive on.')
  const { usable, parts } = largestPart(lat.length, edges)
  const other = edges.map(([a, b, seconds]): Edge => [b, a, seconds])
  return {
    lat: Float64Array.from(lat),
    lon: Float64Array.from(lon),
    ...inRows(lat.length, edges),
    back: inRows(lat.length, other),
    fastest,
    usable,
    parts,
    lines,
    grid: gridOf(network, usable),
  }
}
function inRows(n: number, edges: readonly Edge[]): Edges {
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
function largestPart(n: number, edges: readonly Edge[]): { usable: Uint8Array; parts: number } {
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
