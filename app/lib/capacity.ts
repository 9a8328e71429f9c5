// How full a stretch of work is, as the schedule draws it.
/** From this part of its capacity on a morning, a day is said to be full. */
const FULL = 0.85

/** How far it is filled, as CSS has it: `"50%"` of 4 with 2 taken, never above 100. */
export function shareTaken(taken: number, capacity: number): string {
  if (!capacity) return taken ? '100%' : '0%'
  return `${Math.min(100, (taken / capacity) * 100)}%`
}
/** `"over"` what is possible, `"full"`, or `""`. */
export function fullness(taken: number, capacity: number): 'over' | 'full' | '' {
  if (taken > capacity) return 'over'
  return capacity > 0 && taken >= capacity * FULL ? 'full' : ''
}
