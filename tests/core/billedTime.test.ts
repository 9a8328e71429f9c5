// Time on site as it is charged: rounded as a firm says it, in hours.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { billedHours, TIME_STEPS, TIME_WAYS, USUAL_BILLED_TIME } from '../../core/hours/billedTime'

const MINUTE = 60
describe('time that is charged', () => {
  // Source: 29 CFR 785.48(b) names five minutes, a tenth and a quarter of an hour; by hand here.
  it.each([
    ['nearest', 6, 6, 23 * MINUTE, '0.4'],
    ['nearest', 6, 6, 1, '0.1'],
    ['nearest', 5, 0, 12 * MINUTE, '0.167'],
    ['nearest', 15, 0, 22 * MINUTE, '0.25'],
    ['nearest', 15, 0, 23 * MINUTE, '0.5'],
    ['up', 15, 0, 16 * MINUTE, '0.5'],
    ['up', 15, 60, 16 * MINUTE, '1'],
    ['up', 30, 60, 61 * MINUTE, '1.5'],
    ['up', 1, 0, 61 * MINUTE, '1.017'],
  ] as const)(
    '%s %i minutes, %i at least: %i s are %s h',
    (way, stepMinutes, leastMinutes, s, is) =>
      expect(billedHours(s, { way, stepMinutes, leastMinutes })).toBe(is),
  )
  it('is none where none was spent', () => expect(billedHours(0, USUAL_BILLED_TIME)).toBe('0'))
  test.prop([
    fc.integer({ min: 1, max: 86_400 }),
    fc.constantFrom(...TIME_STEPS),
    fc.constantFrom(...TIME_WAYS),
    fc.integer({ min: 0, max: 480 }),
  ])('is never nothing, and off by a step at most above the least', (s, step, way, least) => {
    const hours = Number(billedHours(s, { way, stepMinutes: step, leastMinutes: least }))
    expect(hours).toBeGreaterThan(0)
    const charged = hours * 3600
    // Hours have three decimals: 1.8 s.
    if (s > Math.max(least, step) * 60)
      expect(Math.abs(charged - s)).toBeLessThanOrEqual(step * 60 + 2)
    if (way === 'up') expect(charged).toBeGreaterThanOrEqual(s - 2)
  })
})
