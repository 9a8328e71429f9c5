// What a discount is for: the price level by its name, and goodwill in its own words; both add up to it.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { discountReasons } from '../../core/documents/discountReasons'

const taken = { discountMinor: 1500, levelMinor: 1000, level: 'Care', words: 'came late' }
describe('what is taken off a line', () => {
  it.each([
    [
      taken,
      [
        ['by Care', 1000],
        ['came late', 500],
      ],
    ],
    [
      { ...taken, words: '' },
      [
        ['by Care', 1000],
        ['as goodwill', 500],
      ],
    ],
    [{ ...taken, discountMinor: 1000 }, [['by Care', 1000]]],
    [{ ...taken, discountMinor: 400 }, [['by Care', 400]]],
    [{ ...taken, level: '' }, [['came late', 1500]]],
    [{ ...taken, discountMinor: 0 }, []],
  ])('of %j is for %j', (of, parts) =>
    expect(discountReasons(of).map(({ why, minor }) => [why, minor])).toEqual(parts),
  )
  it('is all of it, whatever the level would take', () =>
    fc.assert(
      fc.property(fc.nat(10_000), fc.nat(10_000), (discountMinor, levelMinor) => {
        const parts = discountReasons({ ...taken, discountMinor, levelMinor })
        expect(parts.reduce((sum, { minor }) => sum + minor, 0)).toBe(discountMinor)
        expect(parts.every(({ minor }) => minor > 0)).toBe(true)
      }),
    ))
})
