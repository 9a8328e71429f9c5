// The ground of the invented Larkmoor County: highways between the towns, a net of lanes around each of them, a river, a tarn.
import { TOWNS } from './towns'
import { seeded } from '../core/random/seeded'

const HIGHWAYS: [number, number][] = [
  [0, 1],
  [1, 2],
  [1, 5],
  [2, 5],
  [2, 3],
  [3, 0],
  [0, 4],
  [4, 3],
  [0, 2],
]
export function demoRoads(): object {
  const random = seeded(11)
  const features: object[] = []
  const add = (coordinates: number[][], speed: number, name: string) =>
    features.push({
      type: 'Feature',
      properties: { speed, name },
      geometry: {
        type: 'LineString',
        coordinates: coordinates.map(([x, y]) => [
          Math.round(x! * 1e6) / 1e6,
          Math.round(y! * 1e6) / 1e6,
        ]),
      },
    })
  for (const [a, b] of HIGHWAYS) {
    const [from, to] = [TOWNS[a]!, TOWNS[b]!]
    const bend = (random() - 0.5) * 0.03
    add(
      Array.from({ length: 13 }, (_, i) => {
        const t = i / 12
        const out = Math.sin(Math.PI * t) * bend
        return [from.lon + (to.lon - from.lon) * t + out, from.lat + (to.lat - from.lat) * t + out]
      }),
      75,
      `${from.name} to ${to.name}`,
    )
  }
  for (const town of TOWNS) {
    const step = 0.008
    for (let i = -4; i <= 4; i++) {
      add(
        Array.from({ length: 9 }, (_, j) => [town.lon + (j - 4) * step, town.lat + i * step]),
        i === 0 ? 50 : 40,
        `${town.name}, lane ${i + 5}`,
      )
      add(
        Array.from({ length: 9 }, (_, j) => [town.lon + i * step, town.lat + (j - 4) * step]),
        i === 0 ? 50 : 40,
        `${town.name}, street ${i + 5}`,
      )
    }
  }
  for (const town of TOWNS)
    features.push({
      type: 'Feature',
      properties: { kind: 'town', name: town.name },
      geometry: { type: 'Point', coordinates: [town.lon, town.lat] },
    })
  const bends = [
    [-75.02, 42.93],
    [-75.045, 42.9],
    [-75.03, 42.86],
    [-75.06, 42.82],
    [-75.05, 42.79],
    [-75.075, 42.76],
    [-75.11, 42.74],
    [-75.13, 42.72],
    [-75.16, 42.69],
    [-75.19, 42.67],
    [-75.24, 42.65],
    [-75.29, 42.6],
  ]
  features.push({
    type: 'Feature',
    properties: { kind: 'water', name: 'The Otter' },
    geometry: { type: 'LineString', coordinates: bends },
  })
  const tarn = Array.from({ length: 17 }, (_, i) => [
    -75.035 + Math.cos(((i % 16) * Math.PI) / 8) * 0.014 * (1 + (i % 3) * 0.12),
    42.915 + Math.sin(((i % 16) * Math.PI) / 8) * 0.008 * (1 + (i % 2) * 0.2),
  ])
  features.push({
    type: 'Feature',
    properties: { kind: 'water', name: 'High Tarn' },
    geometry: { type: 'Polygon', coordinates: [[...tarn.slice(0, 16), tarn[0]!]] },
  })
  return { type: 'FeatureCollection', features }
}
