// The roads of the invented Larkmoor County: highways between the towns, a net of lanes around each of them.
import { TOWNS } from './company'
import { seeded } from '../core/random/seeded'

const HIGHWAYS: [number, number][] = [[0, 1], [1, 2], [1, 5], [2, 5], [2, 3], [3, 0], [0, 4], [4, 3], [0, 2]]
export function demoRoads(): object {
  const random = seeded(11)
  const features: object[] = []
  const add = (coordinates: number[][], speed: number, name: string) => features.push({ type: 'Feature', properties: { speed, name }, geometry: { type: 'LineString', coordinates: coordinates.map(([x, y]) => [Math.round(x! * 1e6) / 1e6, Math.round(y! * 1e6) / 1e6]) } })
  for (const [a, b] of HIGHWAYS) {
    const [from, to] = [TOWNS[a]!, TOWNS[b]!]
    const bend = (random() - 0.5) * 0.03
    add(Array.from({ length: 13 }, (_, i) => {
      const t = i / 12
      const out = Math.sin(Math.PI * t) * bend
      return [from.lon + (to.lon - from.lon) * t + out, from.lat + (to.lat - from.lat) * t + out]
    }), 75, `${from.name} to ${to.name}`)
  }
  for (const town of TOWNS) {
    const step = 0.008
    for (let i = -4; i <= 4; i++) {
      add(Array.from({ length: 9 }, (_, j) => [town.lon + (j - 4) * step, town.lat + i * step]), i === 0 ? 50 : 40, `${town.name}, lane ${i + 5}`)
      add(Array.from({ length: 9 }, (_, j) => [town.lon + i * step, town.lat + (j - 4) * step]), i === 0 ? 50 : 40, `${town.name}, street ${i + 5}`)
    }
  }
  return { type: 'FeatureCollection', features }
}
