// How full a day is drawn: our own rule, by hand.
import { describe, expect, it } from 'vitest'
import { fullness, shareTaken } from '../../app/lib/capacity'

describe('a stretch of work', () => {
  it.each([
    [0, 0, '0%'],
    [1, 0, '100%'],
    [2, 4, '50%'],
    [4, 4, '100%'],
    [9, 4, '100%'],
  ])('with %i of %i taken is filled to %s', (taken, capacity, share) => {
    expect(shareTaken(taken, capacity)).toBe(share)
  })
  it.each([
    [0, 0, ''],
    [1, 0, 'over'],
    [2, 4, ''],
    [3, 4, ''],
    [17, 20, 'full'],
    [4, 4, 'full'],
    [5, 4, 'over'],
  ])('with %i of %i taken is said to be “%s”', (taken, capacity, said) => {
    expect(fullness(taken, capacity)).toBe(said)
  })
})
