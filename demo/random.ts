// A seeded source of chance and of identifiers: the same seed and day give the same rows.

export interface Chance { next(): number, pick<T>(list: readonly T[]): T, between(low: number, high: number): number, maybe(share: number): boolean, uuid(at: number): string }
export function chance(seed: number): Chance {
  let state = seed >>> 0
  // mulberry32, a small public-domain generator
  const next = () => {
    state = (state + 0x6D2B79F5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const hex = (n: number) => Array.from({ length: n }, () => Math.floor(next() * 16).toString(16)).join('')
  return {
    next,
    pick: list => list[Math.floor(next() * list.length)]!,
    between: (low, high) => low + Math.floor(next() * (high - low + 1)),
    maybe: share => next() < share,
    uuid(at) {
      const time = Math.max(0, Math.floor(at)).toString(16).padStart(12, '0')
      return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${'89ab'[Math.floor(next() * 4)]}${hex(3)}-${hex(12)}`
    },
  }
}
