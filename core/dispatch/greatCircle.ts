/** Degrees, WGS 84. */
export interface Place {
  lat: number
  lon: number
}

/**
 * Metres between two places on a sphere (haversine).
 * @example greatCircle({ lat: 0, lon: 0 }, { lat: 0, lon: 180 }) // half the circumference, 20 015 114.35
 * Source: IUGG mean earth radius 6 371.0088 km.
 */
export const EARTH_RADIUS_M = 6_371_008.8
export function greatCircle(a: Place, b: Place): number {
  const rad = Math.PI / 180
  const dLat = (b.lat - a.lat) * rad
  const dLon = (b.lon - a.lon) * rad
  const h =
    Math.sin(dLat / 2) ** 2 +
    Math.cos(a.lat * rad) * Math.cos(b.lat * rad) * Math.sin(dLon / 2) ** 2
  return 2 * EARTH_RADIUS_M * Math.asin(Math.min(1, Math.sqrt(h)))
}
