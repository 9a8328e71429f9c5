/**
 * Seconds on site that no line covers: worked − covered by lines − explained, never below zero.
 * Under the tolerance (one minute) nothing is said: a clock is not that exact.
 * @example uncoveredSeconds({ worked: 9720, covered: 7920, explained: 0 }) // 1800
 */
export function uncoveredSeconds(input: {
  worked: number
  covered: number
  explained: number
}): number {
  const left = input.worked - input.covered - input.explained
  return left < 60 ? 0 : left
}
