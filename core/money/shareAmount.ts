import { InvalidValue } from '../errors/InvalidValue'
/**
 * An amount shared over weights so that the parts sum to it exactly: largest remainder, ties to the earlier part.
 * Edge cases: no weights → []; all weights zero → equal weights; a negative amount is shared as its mirror image.
 * @param minor whole minor units
 * @param weights non-negative safe integers
 * @throws InvalidValue for a negative or fractional weight
 * @example shareAmount(10000, [1, 1, 1]) // [3334, 3333, 3333]
 * Source: largest remainder (Hamilton) method; own rule for ties.
 */
export function shareAmount(minor: number, weights: readonly number[]): number[] {
  if (weights.length === 0) return []
  if (weights.some((w) => !Number.isSafeInteger(w) || w < 0))
    throw new InvalidValue('weights must be whole and not negative')
  if (minor < 0) return shareAmount(-minor, weights).map((part) => (part === 0 ? 0 : -part))
  const total = weights.reduce((sum, w) => sum + BigInt(w), 0n)
  const used = total === 0n ? weights.map(() => 1n) : weights.map(BigInt)
  const whole = total === 0n ? BigInt(weights.length) : total
  const amount = BigInt(minor)
  const parts = used.map((w) => (amount * w) / whole)
  const left = Number(amount - parts.reduce((sum, p) => sum + p, 0n))
  const order = used
    .map((w, i) => ({ i, rest: (amount * w) % whole }))
    .sort((a, b) => Number(b.rest - a.rest) || a.i - b.i)
  for (const { i } of order.slice(0, left)) parts[i]! += 1n
  return parts.map(Number)
}
