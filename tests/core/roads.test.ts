// Roads: shortest ways against a brute-force search that shares nothing with Dijkstra's; what is no network gets a sentence.
import { describe, expect, it } from 'vitest'
import { driveSeconds } from '../../core/dispatch/driveSeconds'
import { drivesFrom } from '../../core/dispatch/roads/drivesFrom'
import { nearestNode } from '../../core/dispatch/roads/network'
import { readRoads } from '../../core/dispatch/roads/readRoads'
import { roadFan, roadMatrix, roadSeconds } from '../../core/dispatch/roads/roadSeconds'
import { seeded } from '../../core/random/seeded'

const line = (coordinates: number[][], properties: object = {}) => ({
  type: 'Feature',
  properties,
  geometry: { type: 'LineString', coordinates },
})
const network = (...features: object[]) => ({ type: 'FeatureCollection', features })
/** A random net of few places, most of them joined to some others. */
function net(seed: number, n: number) {
  const random = seeded(seed)
  const spots = Array.from({ length: n }, () => [-75 + random() * 0.3, 42 + random() * 0.3])
  return network(
    ...spots.flatMap((a, i) =>
      spots.flatMap((b, j) =>
        i < j && random() < 0.35
          ? [line([a, b], { speed: 30 + Math.floor(random() * 70), oneway: random() < 0.2 })]
          : [],
      ),
    ),
  )
}
describe('the shortest drive', () => {
  it.each([1, 2, 3, 4, 5])(
    'is the one that relaxing every road until nothing changes comes to (Bellman 1958), net %i',
    (seed) => {
      const roads = readRoads(net(seed, 12))
      const n = roads.lat.length
      for (let from = 0; from < n; from++) {
        const cost = Array.from({ length: n }, (_, i) => (i === from ? 0 : Infinity))
        for (let round = 0; round < n; round++)
          for (let u = 0; u < n; u++)
            for (let e = roads.first[u]!; e < roads.first[u + 1]!; e++)
              cost[roads.to[e]!] = Math.min(cost[roads.to[e]!]!, cost[u]! + roads.seconds[e]!)
        drivesFrom(roads, from, [...cost.keys()]).forEach((s, i) =>
          Number.isFinite(cost[i]!) ? expect(s).toBeCloseTo(cost[i]!, 6) : expect(s).toBe(Infinity),
        )
      }
    },
  )
  it('of a pair is that of the matrix', () => {
    const roads = readRoads(net(7, 14))
    const places = [...roads.lat.keys()].map((i) => ({ lat: roads.lat[i]!, lon: roads.lon[i]! }))
    const all = roadMatrix(roads, places, () => -1)
    places.forEach((a, i) =>
      places.forEach((b, j) =>
        expect(roadSeconds(roads, a, b) ?? -1).toBe(all[i * places.length + j]),
      ),
    )
  })
  it('around one place is that of each pair, there and back', () => {
    const roads = readRoads(net(9, 14))
    const places = [...roads.lat.keys()].map((i) => ({ lat: roads.lat[i]!, lon: roads.lon[i]! }))
    const fan = roadFan(
      roads,
      nearestNode(roads, places[0]!),
      places.slice(1).map((p) => nearestNode(roads, p)),
    )
    expect(fan.to).toEqual(places.slice(1).map((p) => roadSeconds(roads, places[0]!, p)))
    expect(fan.from).toEqual(places.slice(1).map((p) => roadSeconds(roads, p, places[0]!)))
    expect(roadFan(roads, null, [nearestNode(roads, places[1]!)])).toEqual({
      to: [null],
      from: [null],
    })
  })
  it('takes the fast way round, and not a one-way road against its direction', () => {
    const [a, b, c] = [
      [-75, 42],
      [-74.9, 42],
      [-74.95, 42.02],
    ]
    const roads = readRoads(
      network(line([a!, b!], { speed: 10 }), line([a!, c!, b!], { speed: 90, oneway: true })),
    )
    const [from, to] = [
      { lat: 42, lon: -75 },
      { lat: 42, lon: -74.9 },
    ]
    expect(roadSeconds(roads, from, to)).toBeLessThan(600)
    expect(roadSeconds(roads, to, from)).toBeGreaterThan(2400)
  })
  it('an hour at 60 km/h is 60 km, by the earth’s mean radius (IUGG)', () => {
    const degrees = 60_000 / ((Math.PI * 6_371_008.8) / 180)
    expect(
      roadSeconds(
        readRoads(
          network(
            line([
              [-75, 42],
              [-75, 42 + degrees],
            ]),
          ),
        ),
        { lat: 42, lon: -75 },
        { lat: 42 + degrees, lon: -75 },
      ),
    ).toBeCloseTo(3600, -2)
  })
})
describe('what the roads do not cover', () => {
  const roads = readRoads(
    network(
      line([
        [-75, 42],
        [-74.9, 42],
      ]),
      line([
        [-70, 42],
        [-70.01, 42],
      ]),
    ),
  )
  it('is said, so that the great circle stands in', () => {
    expect(roadSeconds(roads, { lat: 42, lon: -75 }, { lat: 45, lon: -75 })).toBeNull()
    expect(nearestNode(roads, { lat: 42.5, lon: -75 })).toBeNull()
    const far = { lat: 45, lon: -75 }
    expect(roadMatrix(roads, [{ lat: 42, lon: -75 }, far], driveSeconds)[1]).toBe(
      driveSeconds({ lat: 42, lon: -75 }, far),
    )
  })
  it('a network with a gap is taken in its largest part, and the parts are counted', () => {
    expect(
      readRoads(
        network(
          line([
            [-75, 42],
            [-74.9, 42],
            [-74.8, 42],
          ]),
          line([
            [-70, 42],
            [-70.01, 42],
          ]),
        ),
      ),
    ).toMatchObject({ parts: 2, lines: 2 })
    expect(
      roadSeconds(
        readRoads(
          network(
            line([
              [-75, 42],
              [-74.9, 42],
              [-74.8, 42],
            ]),
            line([
              [-70, 42],
              [-70.01, 42],
            ]),
          ),
        ),
        { lat: 42, lon: -75 },
        { lat: 42, lon: -70 },
      ),
    ).toBeNull()
  })
  it('the same place takes no time', () =>
    expect(roadSeconds(roads, { lat: 45, lon: 9 }, { lat: 45, lon: 9 })).toBe(0))
})
it.each([
  [null, 'FeatureCollection'],
  [{ type: 'Feature' }, 'FeatureCollection'],
  [network(), 'no lines'],
  [network({ type: 'Feature', geometry: { type: 'Point', coordinates: [0, 0] } }), 'no lines'],
  [network(line([[0, 0]])), 'fewer than two'],
  [
    network(
      line([
        [0, 95],
        [0, 0],
      ]),
    ),
    'degrees',
  ],
  [network(line([['a', 0] as never, [0, 0]])), 'degrees'],
  [
    network(
      line(
        [
          [0, 0],
          [1, 1],
        ],
        { speed: 0 },
      ),
    ),
    'speed',
  ],
  [
    network(
      line(
        [
          [0, 0],
          [1, 1],
        ],
        { speed: 'fast' },
      ),
    ),
    'speed',
  ],
])('%j is refused with a sentence', (data, says) => expect(() => readRoads(data)).toThrow(says))
it('a network that is too large is refused before it fills the memory', () =>
  expect(() =>
    readRoads(network(line(Array.from({ length: 50 }, (_, i) => [i / 100, 0]))), 20),
  ).toThrow('smaller area'))
