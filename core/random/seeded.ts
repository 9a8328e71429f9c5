/**
 * A seeded source of numbers in [0, 1): the same seed gives the same row of numbers everywhere.
 * Source: mulberry32, a small generator in the public domain (T. Ettinger); not for secrets.
 * @example const next = seeded(7); next() // 0.0117…, the same every time
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
