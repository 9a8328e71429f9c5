// What overlaps stands on levels of its own, and on no more of them than it must.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stackSpans, type Span } from '../../core/time/stackSpans'

const span = fc
  .tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 1, max: 12 }))
  .map(([from, long]): Span => ({ from, to: from + long }))
const overlap = (a: Span, b: Span) => a.from < b.to && b.from < a.to
/** How many lie over one moment: counted moment by moment. */
const depth = (spans: readonly Span[]) =>
  Math.max(
    0,
    ...Array.from({ length: 60 }, (_, at) => spans.filter((s) => s.from <= at && at < s.to).length),
  )

describe('the levels of spans', () => {
  it('are the first for what stands alone, and for what follows upon it', () => {
    expect(stackSpans([])).toEqual([])
    expect(
      stackSpans([
        { from: 0, to: 2 },
        { from: 2, to: 4 },
      ]),
    ).toEqual([0, 0])
  })
  it('part two of the same time, in the order in which they were given', () => {
    const same = { from: 0, to: 2 }
    expect(stackSpans([same, same, { from: 5, to: 6 }])).toEqual([0, 1, 0])
  })
  it('are answered in the order of the spans, whichever begins first', () =>
    expect(
      stackSpans([
        { from: 1, to: 3 },
        { from: 0, to: 2 },
      ]),
    ).toEqual([1, 0]))
  it('never lay two that overlap on each other, and are as few as most overlap at once', () =>
    fc.assert(
      fc.property(fc.array(span, { maxLength: 14 }), (spans) => {
        const levels = stackSpans(spans)
        for (const [i, a] of spans.entries())
          for (const [j, b] of spans.entries())
            if (i < j && overlap(a, b)) expect(levels[i]).not.toBe(levels[j])
        expect(Math.max(0, ...levels.map((level) => level + 1))).toBe(depth(spans))
      }),
    ))
})
