// Calls counted by what they have in common.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { CALL_ABOUT, sayCallAbout } from '../../core/calls/callAbout'
import { whereCallStands, type At } from '../../core/waiting/whereItStands'
import { callWaits } from '../../core/calls/callWaits'
import { allCalls, callCounts, OUTCOMES, type AlikeCalls } from '../../core/calls/callCounts'

const alike = (more: Partial<AlikeCalls>): AlikeCalls => ({
  ...{ about: 'new_work', kind: 'repair', source: 'van', outcome: 'work', calls: 1 },
  ...{ billedMinor: 0, paidMinor: 0 },
  ...more,
})
describe('calls counted', () => {
  const some = [
    alike({ calls: 3, billedMinor: 900 }),
    alike({ source: 'web', outcome: 'declined', calls: 9 }),
    alike({ source: 'web', kind: 'service', calls: 1, billedMinor: 5_000, paidMinor: 4_000 }),
  ]
  it('by source: what brought most first, each with what came of it', () =>
    expect(callCounts(some, 'source')).toEqual([
      {
        ...{ key: 'web', calls: 10, billedMinor: 5_000, paidMinor: 4_000 },
        came: { work: 1, quote: 0, answered: 0, declined: 9, waiting: 0 },
      },
      {
        ...{ key: 'van', calls: 3, billedMinor: 900, paidMinor: 0 },
        came: { work: 3, quote: 0, answered: 0, declined: 0, waiting: 0 },
      },
    ]))
  it('by kind of work', () =>
    expect(callCounts(some, 'kind').map(({ key, calls }) => [key, calls])).toEqual([
      ['service', 1],
      ['repair', 12],
    ]))
  it('none are nothing', () =>
    expect([callCounts([], 'about'), allCalls([]).calls]).toEqual([[], 0]))
})
const one = fc.record({
  about: fc.constantFrom(...CALL_ABOUT),
  kind: fc.constantFrom('repair', 'service', ''),
  source: fc.constantFrom('van', 'web', ''),
  outcome: fc.constantFrom(...OUTCOMES),
  calls: fc.nat(50),
  billedMinor: fc.nat(9_999),
  paidMinor: fc.nat(9_999),
})
test.prop([fc.array(one), fc.constantFrom('about', 'kind', 'source' as const)])(
  'however they are parted, they come to the same',
  (calls, by) => {
    const parts = callCounts(calls, by as 'about')
    const sum = (of: (count: (typeof parts)[number]) => number) =>
      parts.reduce((n, count) => n + of(count), 0)
    const all = allCalls(calls)
    expect([sum((c) => c.calls), sum((c) => c.billedMinor), sum((c) => c.paidMinor)]).toEqual([
      all.calls,
      all.billedMinor,
      all.paidMinor,
    ])
    for (const outcome of OUTCOMES) expect(sum((c) => c.came[outcome])).toBe(all.came[outcome])
  },
)
it('what a call is about is said in words', () =>
  expect([sayCallAbout('bill'), sayCallAbout('from before')]).toEqual([
    'about a bill',
    'from before',
  ]))

describe('a call waits', () => {
  it.each(['open', 'put_off', 'booked', 'quoted', 'answered', 'declined'] as const)(
    '%s: exactly where the rule has it in a place',
    (state) => {
      const at = { today: '2026-11-24', day: (date: string) => date } as At
      const facts = {
        state,
        origin: 'telephone',
        callBackOn: '2026-12-01',
        reason: 'later',
      } as const
      expect(callWaits(state)).toBe('place' in whereCallStands(facts, at))
    },
  )
})
