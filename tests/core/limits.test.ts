// How far a role may go.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { beyondLimit, loweredPercent, USUAL_LIMITS, type LineSums } from '../../core/access/limits'
import { ROLES } from '../../core/access/permissions'
import { whereAskStands } from '../../core/waiting/whereItStands'

const line = (netMinor: number, usualMinor: number, costMinor = 0): LineSums => ({
  netMinor,
  usualMinor,
  costMinor,
})
const ten = { lowerPercent: 10, belowCost: false }
describe('a line goes beyond a limit of ten per cent', () => {
  it.each([
    ['at its price', line(10_000, 10_000), null],
    ['above it', line(12_000, 10_000), null],
    ['ten per cent below', line(9_000, 10_000), null],
    ['a cent more than that', line(8_999, 10_000), 'lowered'],
    ['nearly all', line(1, 15_900), 'lowered'],
    ['within it, and below what it costs', line(9_500, 10_000, 9_600), 'below_cost'],
    ['below what it costs, as the book has it', line(9_500, 9_500, 9_600), null],
    ['where nothing says what it should be', line(1, 0), null],
  ] as const)('%s', (_, sums, beyond) => expect(beyondLimit(sums, ten)).toBe(beyond))
  it('and is said to be lowered by what it is, rounded up', () =>
    expect([1, 8_999, 9_000, 10_001].map((net) => loweredPercent(line(net, 10_000)))).toEqual([
      100, 11, 10, 0,
    ]))
})
test.prop([fc.nat(100_000), fc.nat(100_000), fc.nat(100_000)])(
  'whoever may go further is never stopped where another is not',
  (net, usual, cost) => {
    for (const role of ROLES)
      if (!beyondLimit(line(net, usual, cost), USUAL_LIMITS[role]))
        expect(beyondLimit(line(net, usual, cost), USUAL_LIMITS.owner)).toBeNull()
  },
)
it('what is asked waits until it is answered', () => {
  const ask = { reason: 'an old customer', askedBy: 'Ines' }
  expect(whereAskStands({ ...ask, state: 'asked' })).toMatchObject({ place: 'asks' })
  for (const state of ['given', 'refused', 'withdrawn'] as const)
    expect(whereAskStands({ ...ask, state })).toEqual({ rest: state })
})
