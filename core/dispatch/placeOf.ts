import type { Place } from './greatCircle'

/**
 * The place of a row that may have none; null where either coordinate is missing.
 * @example placeOf({ lat: 42.7, lon: -75.1 }) // { lat: 42.7, lon: -75.1 }
 */
export const placeOf = (row: { lat: number | null; lon: number | null }): Place | null =>
  row.lat === null || row.lon === null ? null : { lat: row.lat, lon: row.lon }
