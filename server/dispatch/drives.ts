// Drive times for the server: along the imported roads where they cover both ends, else by great circle and circuity; kept once known.
import { gunzipSync, gzipSync } from 'node:zlib'
import { invalid } from '../../core/errors/LedgerError'
import { driveSeconds } from '../../core/dispatch/driveSeconds'
import type { Place } from '../../core/dispatch/greatCircle'
import { mapGround } from '../../core/dispatch/mapGround'
import { readRoads, roadMatrix, roadSeconds, roadWay, type Roads } from '../../core/dispatch/roads'
import type { Answer, Body } from '../../shared/api'
import type { Tx } from '../db/pool'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { currentRoads, insertRoads, roadsData } from './queries'

export type Driver = (a: Place, b: Place) => number
export type Way = [number, number][]
let loaded: { id: string, roads: Roads, ground: string } | null = null
const ways = new Map<string, Way>()
const MOST_WAYS = 5_000
const known = new Map<string, number>()
/** Drives that are kept; a firm's sites and homes come to far fewer. */
const MOST_KNOWN = 200_000

async function roadsNow(tx: Tx): Promise<Roads | null> {
  const current = await currentRoads(tx)
  if (!current) return null
  if (loaded?.id !== current.id) {
    const data: unknown = JSON.parse(gunzipSync((await roadsData(tx, current.id))!).toString('utf8'))
    loaded = { id: current.id, roads: readRoads(data), ground: JSON.stringify(mapGround(data)) }
    known.clear()
    ways.clear()
  }
  return loaded.roads
}
/** The one way to a drive time. Asked for by transaction, because the roads may have been imported since. */
export async function driver(tx: Tx): Promise<Driver> {
  const roads = await roadsNow(tx)
  if (!roads) return driveSeconds
  return (a, b) => {
    const key = `${a.lat} ${a.lon} ${b.lat} ${b.lon}`
    let seconds = known.get(key)
    if (seconds === undefined) {
      seconds = roadSeconds(roads, a, b) ?? driveSeconds(a, b)
      if (known.size >= MOST_KNOWN) known.clear()
      known.set(key, seconds)
    }
    return seconds
  }
}
/** The one way to the line of a drive, for the map; straight where the roads do not cover both ends. */
export async function wayFinder(tx: Tx): Promise<(a: Place, b: Place) => Way> {
  const roads = await roadsNow(tx)
  return (a, b) => {
    const key = `${a.lat} ${a.lon} ${b.lat} ${b.lon}`
    const found = ways.get(key) ?? (roads && roadWay(roads, a, b)) ?? [[a.lon, a.lat], [b.lon, b.lat]]
    if (ways.size >= MOST_WAYS) ways.clear()
    ways.set(key, found)
    return found
  }
}
/** What the map is drawn on, as GeoJSON; nothing but an empty collection before roads were imported. */
export async function groundNow(tx: Tx): Promise<{ id: string | null, json: string }> {
  await roadsNow(tx)
  return { id: loaded?.id ?? null, json: loaded?.ground ?? '{"type":"FeatureCollection","features":[]}' }
}
/** All drives between places, row by row: one search for each place instead of one for each pair. */
export async function driveMatrix(tx: Tx, places: readonly Place[]): Promise<Float64Array> {
  const roads = await roadsNow(tx)
  return roads ? roadMatrix(roads, places, driveSeconds) : Float64Array.from(places.flatMap(a => places.map(b => driveSeconds(a, b))))
}
export async function roadsOf(ctx: Ctx): Promise<Answer<'roads'>> {
  const current = await currentRoads(ctx.tx)
  const roads = await roadsNow(ctx.tx)
  return { network: current && roads ? { name: current.name, lines: roads.lines, positions: roads.lat.length, parts: roads.parts, importedAt: current.importedAt } : null }
}
/** Takes another network, once it has been read whole; the one before stays until then. */
export async function importRoads(ctx: Ctx, body: Body<'importRoads'>): Promise<Answer<'roads'>> {
  let data: unknown
  try {
    data = JSON.parse(body.data)
  }
  catch {
    throw invalid('data', 'This file is not JSON.')
  }
  const roads = readRoads(data)
  await insertRoads(ctx.tx, { id: body.id, name: body.name, roads: roads.lines, data: gzipSync(JSON.stringify(data)), by: signedIn(ctx).id, at: ctx.now })
  await record(ctx, { subject: 'roads', id: body.id, text: `Roads imported: ${body.name}, ${roads.lines} lines` })
  return roadsOf(ctx)
}
