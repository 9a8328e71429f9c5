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
type Position = [lon: number, lat: number]
const feature = (properties: object, type: string, coordinates: unknown) => ({
  type: 'Feature',
  properties,
  geometry: { type, coordinates },
})
const fine = (degrees: number) => Math.round(degrees * 1e6) / 1e6
const road = (positions: Position[], speed: number, name: string) =>
  feature(
    { speed, name },
    'LineString',
    positions.map(([x, y]) => [fine(x), fine(y)]),
  )
/** Highways from town to town, each with a bend of its own. */
function highways(): object[] {
  const random = seeded(11)
  return HIGHWAYS.map(([a, b]) => {
    const [from, to] = [TOWNS[a]!, TOWNS[b]!]
    const bend = (random() - 0.5) * 0.03
    const positions = Array.from({ length: 13 }, (_, i): Position => {
      const t = i / 12
      const out = Math.sin(Math.PI * t) * bend
      return [from.lon + (to.lon - from.lon) * t + out, from.lat + (to.lat - from.lat) * t + out]
    })
    return road(positions, 75, `${from.name} to ${to.name}`)
  })
}
const STEP = 0.008
const NET = [-4, -3, -2, -1, 0, 1, 2, 3, 4]
/** A net of lanes and streets around a town; those through its middle are faster. */
const lanes = ({ lon, lat, name }: (typeof TOWNS)[number]): object[] =>
  NET.flatMap((i) => {
    const speed = i === 0 ? 50 : 40
    const lane = NET.map((j): Position => [lon + j * STEP, lat + i * STEP])
    const street = NET.map((j): Position => [lon + i * STEP, lat + j * STEP])
    return [
      road(lane, speed, `${name}, lane ${i + 5}`),
      road(street, speed, `${name}, street ${i + 5}`),
    ]
  })
const OTTER: Position[] = [
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
function tarn(): object {
  const shore = Array.from({ length: 16 }, (_, i): Position => [
    -75.035 + Math.cos((i * Math.PI) / 8) * 0.014 * (1 + (i % 3) * 0.12),
    42.915 + Math.sin((i * Math.PI) / 8) * 0.008 * (1 + (i % 2) * 0.2),
  ])
  return feature({ kind: 'water', name: 'High Tarn' }, 'Polygon', [[...shore, shore[0]!]])
}
export function demoRoads(): object {
  const features = [
    ...highways(),
    ...TOWNS.flatMap(lanes),
    ...TOWNS.map((t) => feature({ kind: 'town', name: t.name }, 'Point', [t.lon, t.lat])),
    feature({ kind: 'water', name: 'The Otter' }, 'LineString', OTTER),
    tarn(),
  ]
  return { type: 'FeatureCollection', features }
}
