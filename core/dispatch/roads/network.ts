// A road network: nodes where lines meet, edges with their seconds.
import { greatCircle, type Place } from '../greatCircle'

/** Edges of node i are first[i] … first[i + 1] - 1. */
export interface Edges {
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
/** Farther than this from any road, a place is not covered. */
export const COVERED_WITHIN_M = 3000
const CELL = 0.03
/** The square of the grid that a position lies in. */
export const cell = (lat: number, lon: number) =>
  `${Math.floor(lat / CELL)} ${Math.floor(lon / CELL)}`
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

/** A place as the roads see it: its nearest node, found once for many drives. */
export type OnRoad = ReturnType<typeof nearestNode>
