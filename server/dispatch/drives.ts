// Drive times for the server: along the imported roads where they cover both ends, else by great circle and circuity; kept once known.
import { scheduleFacts } from './facts'
import { driveSeconds } from '../../core/dispatch/driveSeconds'
import type { Place } from '../../core/dispatch/greatCircle'
import { nearestNode, type OnRoad, type Roads } from '../../core/dispatch/roads/network'
import { roadFan, roadMatrix, roadSeconds, roadWay } from '../../core/dispatch/roads/roadSeconds'
import type { Answer, Body } from '../../shared/api'
import type { Tx } from '../db/pool'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { roadsIn, type ReadRoads } from '../work/roadsThread'
import { currentRoads, insertRoads, roadsData } from './roads.queries'

/** Seconds from one place to another. */
export type Driver = ((a: Place, b: Place) => number) & {
  /** finds all drives between one place and others at once, before they are asked for one by one */
  around(hub: Place, others: readonly Place[]): void
}
export type Way = [number, number][]
/** A place that was driven to or from: where it meets the road, and its column in the rows of drives. */
interface Spot {
  index: number
  road: OnRoad
  row: Map<number, number>
}
/** The network in use, with what was found on it. Another network begins with nothing found, and whoever is still asking the one before keeps it whole. */
interface Network {
  id: string
  roads: Roads
  ground: string
  spots: Map<string, Spot>
  ways: Map<string, Way>
}
let loaded: Network | null = null
/** The network that is being read: whoever asks meanwhile waits for the same one. */
let coming: { id: string; network: Promise<Network> } | null = null
const networkOf = (id: string, { roads, ground }: ReadRoads): Network => ({
  id,
  roads,
  ground,
  spots: new Map(),
  ways: new Map(),
})
const MOST_WAYS = 5_000
/** Places that are kept; each knows its drives to the others. A firm's sites and homes come to fewer. */
const MOST_SPOTS = 20_000

async function networkNow(tx: Tx): Promise<Network | null> {
  const current = await currentRoads(tx)
  if (!current) return null
  if (loaded?.id === current.id) return loaded
  const { id } = current
  if (coming?.id !== id) {
    const packed = (await roadsData(tx, id))!
    // Somebody else may have begun while this was asked.
    if (coming?.id !== id)
      coming = { id, network: roadsIn({ packed }).then((read) => networkOf(id, read)) }
  }
  try {
    loaded = await coming!.network
  } finally {
    if (coming?.id === id) coming = null
  }
  return loaded
}
/** The one way to a drive time. Asked for by transaction, because the roads may have been imported since. */
export async function driver(tx: Tx): Promise<Driver> {
  const network = await networkNow(tx)
  if (!network)
    return Object.assign((a: Place, b: Place) => driveSeconds(a, b), { around: () => {} })
  if (network.spots.size >= MOST_SPOTS) network.spots = new Map()
  const { roads, spots } = network
  // The same row of the database is asked for often: what it was found to be is kept beside it.
  const seen = new WeakMap<Place, Spot>()
  const spot = (p: Place): Spot => {
    const known = seen.get(p)
    if (known) return known
    const key = `${p.lat} ${p.lon}`
    const found = spots.get(key) ?? {
      index: spots.size,
      road: nearestNode(roads, p),
      row: new Map(),
    }
    spots.set(key, found)
    seen.set(p, found)
    return found
  }
  const drive = (a: Place, b: Place) => {
    const [from, to] = [spot(a), spot(b)]
    let seconds = from.row.get(to.index)
    if (seconds === undefined) {
      seconds = roadSeconds(roads, a, b, { from: from.road, to: to.road }) ?? driveSeconds(a, b)
      from.row.set(to.index, seconds)
    }
    return seconds
  }
  const around = (hub: Place, others: readonly Place[]) => {
    const middle = spot(hub)
    const unknown = [...new Map(others.map((p) => [spot(p), p])).entries()].filter(
      ([s]) => s !== middle && !(middle.row.has(s.index) && s.row.has(middle.index)),
    )
    const fan = roadFan(
      roads,
      middle.road,
      unknown.map(([s]) => s.road),
    )
    unknown.forEach(([s, p], i) => {
      middle.row.set(s.index, fan.to[i] ?? driveSeconds(hub, p))
      s.row.set(middle.index, fan.from[i] ?? driveSeconds(p, hub))
    })
  }
  return Object.assign(drive, { around })
}
/** The one way to the line of a drive, for the map; straight where the roads do not cover both ends. */
export async function wayFinder(tx: Tx): Promise<(a: Place, b: Place) => Way> {
  const network = await networkNow(tx)
  const ways = network?.ways ?? new Map<string, Way>()
  return (a, b) => {
    const key = `${a.lat} ${a.lon} ${b.lat} ${b.lon}`
    const found = ways.get(key) ??
      (network && roadWay(network.roads, a, b)) ?? [
        [a.lon, a.lat],
        [b.lon, b.lat],
      ]
    if (ways.size >= MOST_WAYS) ways.clear()
    ways.set(key, found)
    return found
  }
}
/** What the map is drawn on, as GeoJSON; nothing but an empty collection before roads were imported. */
export async function groundNow(tx: Tx): Promise<{ id: string | null; json: string }> {
  await networkNow(tx)
  return {
    id: loaded?.id ?? null,
    json: loaded?.ground ?? '{"type":"FeatureCollection","features":[]}',
  }
}
/** All drives between places, row by row: one search for each place instead of one for each pair. */
export async function driveMatrix(tx: Tx, places: readonly Place[]): Promise<Float64Array> {
  const network = await networkNow(tx)
  return network
    ? roadMatrix(network.roads, places, driveSeconds)
    : Float64Array.from(places.flatMap((a) => places.map((b) => driveSeconds(a, b))))
}
export async function roadsOf(ctx: Ctx): Promise<Answer<'roads'>> {
  const current = await currentRoads(ctx.tx)
  const roads = (await networkNow(ctx.tx))?.roads
  return current && roads ? shapeRoads(current, roads) : { network: null }
}
const shapeRoads = (
  { name, importedAt }: { name: string; importedAt: string },
  { lines, lat, parts }: Roads,
): Answer<'roads'> => ({ network: { name, lines, positions: lat.length, parts, importedAt } })
/** Takes another network, once it has been read whole; the one before stays until then. */
export async function importRoads(call: Call, body: Body<'importRoads'>): Promise<Answer<'roads'>> {
  const read = await roadsIn({ text: body.data })
  return call.once(async (ctx) => {
    const { lines } = read.roads
    await insertRoads(ctx.tx, {
      id: body.id,
      name: body.name,
      roads: lines,
      data: Buffer.from(read.packed),
      by: signedIn(ctx).id,
      at: ctx.now,
    })
    await record(ctx, {
      subject: 'roads',
      id: body.id,
      fact: scheduleFacts.roadsImported({ name: body.name, lines }),
    })
    ctx.tx.afterCommit(() => {
      loaded = networkOf(body.id, read)
    })
    return shapeRoads({ name: body.name, importedAt: new Date(ctx.now).toISOString() }, read.roads)
  })
}
