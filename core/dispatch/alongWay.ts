import { greatCircle } from './greatCircle'

/**
 * Where somebody is who has driven a share of a way, between its positions.
 * @param way longitude before latitude, at least one position
 * @param share 0 at its beginning, 1 at its end; what lies beyond is held to the ends
 * @example alongWay([[0, 0], [0, 2]], 0.5) // [0, 1]
 */
export function alongWay(way: readonly (readonly [number, number])[], share: number): [number, number] {
  const lengths = way.slice(1).map(([lon, lat], i) => greatCircle({ lat: way[i]![1], lon: way[i]![0] }, { lat, lon }))
  let left = Math.max(0, Math.min(1, share)) * lengths.reduce((a, b) => a + b, 0)
  for (const [i, length] of lengths.entries()) {
    if (left <= length && length > 0) {
      const t = left / length
      const [a, b] = [way[i]!, way[i + 1]!]
      return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
    }
    left -= length
  }
  return [...way.at(-1)!]
}
