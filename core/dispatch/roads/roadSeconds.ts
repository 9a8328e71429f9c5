// Drives between places along the roads.
import { greatCircle, type Place } from '../greatCircle'
import { drivesFrom } from './drivesFrom'
import { nearestNode, type OnRoad, type Roads } from './network'

/** From the door to the road. */
const YARD_MS = 20 / 3.6
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
  on: { from?: OnRoad; to?: OnRoad } = {},
): number | null {
  if (a.lat === b.lat && a.lon === b.lon) return 0
  const { from = nearestNode(roads, a), to = nearestNode(roads, b) } = on
  if (!from || !to) return null
  const guess = straightTo(roads, to.node)
  const [seconds] = drivesFrom(roads, from.node, [to.node], { guess })
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
  const guess = straightTo(roads, to.node)
  const [seconds] = drivesFrom(roads, from.node, [to.node], { guess, trace: before })
  if (!Number.isFinite(seconds!)) return null
  const way: [number, number][] = []
  for (let n = to.node; n >= 0; n = n === from.node ? -1 : before[n]!)
    way.push([roads.lon[n]!, roads.lat[n]!])
  return [[a.lon, a.lat], ...way.reverse(), [b.lon, b.lat]]
}
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
