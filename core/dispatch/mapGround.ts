type Feature = {
  type?: string
  geometry?: { type?: string; coordinates?: unknown }
  properties?: { name?: unknown; speed?: unknown; kind?: unknown } | null
}
function positions(coordinates: unknown): number {
  if (!Array.isArray(coordinates)) return 0
  if (typeof coordinates[0] === 'number') return 1
  return coordinates.reduce((n: number, c) => n + positions(c), 0)
}

/**
 * What a map shows beneath everything else: waters, towns (points with a name), and roads, the fastest first until `most` positions are used,
 * so that the network of a whole state can still be drawn. Of the properties only `name`, `kind` and `speed` go along.
 * @param data a GeoJSON FeatureCollection (RFC 7946), as it was imported
 * @example mapGround(network).features.length
 */
export function mapGround(
  data: unknown,
  most = 60_000,
): { type: 'FeatureCollection'; features: object[] } {
  const all = ((data as { features?: Feature[] } | null)?.features ?? []).filter(
    (f) => f.geometry?.type && f.geometry.coordinates,
  )
  const isRoad = (f: Feature) =>
    f.properties?.kind !== 'water' && f.geometry!.type!.endsWith('LineString')
  const roads = all
    .filter(isRoad)
    .sort((a, b) => Number(b.properties?.speed ?? 0) - Number(a.properties?.speed ?? 0))
  let left = most
  const features = [...all.filter((f) => !isRoad(f)), ...roads].flatMap((f) => {
    left -= positions(f.geometry!.coordinates)
    if (left < 0) return []
    const { name, kind, speed } = f.properties ?? {}
    return [
      {
        type: 'Feature',
        properties: {
          ...(name ? { name } : {}),
          ...(kind ? { kind } : {}),
          ...(speed ? { speed } : {}),
        },
        geometry: f.geometry,
      },
    ]
  })
  return { type: 'FeatureCollection', features }
}
