// Phases of long work: each has its own account, and together they are the work order.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { labourCost } from '../../core/costing/labourCost'
import { phaseAccounts, type PhasedWork } from '../../core/costing/phaseAccounts'
import { workOrderAccount } from '../../core/costing/workOrderAccount'

const AT = { now: 9_000_000, currency: 'USD' }
const phaseId = fc.constantFrom('dig', 'pipe', null)
const minor = fc.integer({ min: 0, max: 900_000 })
const line = fc.record({
  ...{ id: fc.uuid(), phaseId, done: fc.boolean(), materialMinor: minor },
  ...{ promisedMinor: minor, doneMinor: minor, billedMinor: minor, paidMinor: minor },
})
const time = fc
  .record({
    phaseId,
    kind: fc.constantFrom('drive' as const, 'on_site' as const, 'paused' as const),
    startedAt: fc.integer({ min: 0, max: 4_000_000 }),
    lasts: fc.integer({ min: 0, max: 4_000_000 }),
    costRate: fc.constantFrom('42', '37.55', '61.2'),
  })
  .map(({ lasts, ...own }) => ({ ...own, endedAt: own.startedAt + lasts }))
const work: fc.Arbitrary<PhasedWork> = fc.record({
  lines: fc.array(line, { maxLength: 8 }),
  clock: fc.array(time, { maxLength: 8 }),
})

describe('the phases of a work order', () => {
  it('are accounted each for itself, in their order; what is of none comes last', () => {
    const [dig, pipe, rest] = phaseAccounts(
      ['dig', 'pipe'],
      {
        lines: [
          {
            ...{ id: 'a', phaseId: 'pipe', done: true, materialMinor: 2_100 },
            ...{ promisedMinor: 10_000, doneMinor: 12_000, billedMinor: 5_000, paidMinor: 0 },
          },
          {
            ...{ id: 'b', phaseId: null, done: false, materialMinor: 0 },
            ...{ promisedMinor: 3_000, doneMinor: 0, billedMinor: 0, paidMinor: 0 },
          },
        ],
        clock: [
          {
            ...{ kind: 'on_site', phaseId: 'pipe', costRate: '42' },
            ...{ startedAt: 0, endedAt: 1_800_000 },
          },
        ],
      },
      AT,
    )
    expect(dig).toMatchObject({ phaseId: 'dig', lines: 0, linesDone: 0, costMinor: 0 })
    expect(pipe).toMatchObject({ lines: 1, linesDone: 1, siteSeconds: 1_800, costMinor: 4_200 })
    expect(pipe!.account).toMatchObject({ toBillMinor: 7_000, beyondPromiseMinor: 2_000 })
    expect(rest).toMatchObject({ phaseId: null, lines: 1, linesDone: 0 })
  })
  it('leave no row over where everything has its phase', () => {
    expect(phaseAccounts(['dig'], { lines: [], clock: [] }, AT)).toHaveLength(1)
  })
  test.prop([work])('sum to the account and the cost of the whole, to the unit', (of) => {
    const phases = phaseAccounts(['dig', 'pipe'], of, AT)
    const sum = (pick: (phase: (typeof phases)[number]) => number) =>
      phases.reduce((all, phase) => all + pick(phase), 0)
    const whole = workOrderAccount(of.lines)
    for (const column of ['promisedMinor', 'doneMinor', 'billedMinor', 'toBillMinor'] as const)
      expect(sum(({ account }) => account[column])).toBe(whole[column])
    expect(sum(({ lines }) => lines)).toBe(of.lines.length)
    expect(sum(({ costMinor }) => costMinor)).toBe(
      of.lines.reduce((all, l) => all + l.materialMinor, 0) + labourCost(of.clock, AT.now, 'USD'),
    )
  })
})
