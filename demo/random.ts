// A seeded source of chance and of identifiers: the same seed and day give the same rows.
import { seeded } from '../core/random/seeded'

export interface Chance {
  next(): number
  pick<T>(list: readonly T[]): T
  between(low: number, high: number): number
  maybe(share: number): boolean
  uuid(at: number): string
}
export function chance(seed: number): Chance {
  const next = seeded(seed)
  const hex = (n: number) =>
    Array.from({ length: n }, () => Math.floor(next() * 16).toString(16)).join('')
  return {
    next,
    pick: (list) => list[Math.floor(next() * list.length)]!,
    between: (low, high) => low + Math.floor(next() * (high - low + 1)),
    maybe: (share) => next() < share,
    uuid(at) {
      const time = Math.max(0, Math.floor(at)).toString(16).padStart(12, '0')
      return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${'89ab'[Math.floor(next() * 4)]}${hex(3)}-${hex(12)}`
    },
  }
}
