// When what goes out by itself is due next.
import { describe, expect, it } from 'vitest'
import { nextDue } from '../../core/time/nextDue'

describe('the next day on which something is due', () => {
  it.each([
    ['day', '2026-11-24', '2026-11-24', '2026-11-25'],
    // What was missed is left out.
    ['day', '2026-11-24', '2026-12-05', '2026-12-06'],
    ['week', '2026-11-24', '2026-11-24', '2026-12-01'],
    ['week', '2026-11-24', '2026-12-02', '2026-12-08'],
    ['month', '2026-01-31', '2026-01-31', '2026-02-28'],
    ['month', '2026-01-31', '2026-02-28', '2026-03-31'],
    ['month', '2024-01-31', '2024-02-10', '2024-02-29'],
    // Before it begins, it is due on its first day.
    ['month', '2026-11-24', '2026-11-01', '2026-11-24'],
  ] as const)('each %s since %s, on %s: %s', (every, begun, today, next) =>
    expect(nextDue(begun, every, today)).toBe(next),
  )
})
