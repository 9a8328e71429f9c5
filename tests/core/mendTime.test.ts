// Time that is entered or corrected by hand.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { timeFault, type Stretch } from '../../core/hours/mendTime'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { localToInstant } from '../../core/time/zone'
import { DAY, HOUR, MINUTE } from '../../core/time/units'

const NOW = 100 * HOUR
const of = (from: number, to: number | null): Stretch => ({
  startedAt: from * HOUR,
  endedAt: to === null ? null : to * HOUR,
})
describe('what speaks against a stretch of time', () => {
  const others = [of(10, 12), of(14, 15)]
  it.each<[string, Stretch, ReturnType<typeof timeFault>]>([
    ['nothing between two that it touches', of(12, 14), null],
    ['that it ends when it begins', of(13, 13), 'ends_before'],
    ['that it ends before', of(13, 12), 'ends_before'],
    ['that it overlaps the end of one', of(11, 13), 'overlap'],
    ['that it lies within one', of(10.5, 11), 'overlap'],
    ['that it holds one', of(9, 13), 'overlap'],
    ['that it has not ended yet', of(99, 101), 'not_yet'],
    ['that it has not begun yet', of(101, 102), 'not_yet'],
    ['that nobody works that long', of(16, 33), 'too_long'],
    ['nothing, also where it still runs', of(98, null), null],
    ['that it runs into another', of(9.5, null), 'too_long'],
  ])('%s', (_, wanted, fault) => expect(timeFault(wanted, others, NOW)).toBe(fault))
  it('that another one still runs', () =>
    expect(timeFault(of(98, 99), [of(97, null)], NOW)).toBe('overlap'))
  const hour = fc.integer({ min: 0, max: 15 * 60 })
  const stretch = fc.tuple(hour, hour).map(([a, b]) => ({
    startedAt: Math.min(a, b) * MINUTE,
    endedAt: (Math.max(a, b) + 1) * MINUTE,
  }))
  test.prop([fc.array(stretch, { maxLength: 30 })])(
    'so that those that are let in never overlap: together they last no longer than the time that they span',
    (wanted) => {
      const kept: Stretch[] = []
      for (const one of wanted) if (!timeFault(one, kept, 2 * DAY)) kept.push(one)
      const spent = kept.reduce((sum, { startedAt, endedAt }) => sum + endedAt! - startedAt, 0)
      const first = Math.min(...kept.map((s) => s.startedAt))
      const last = Math.max(...kept.map((s) => s.endedAt!))
      expect(spent).toBeLessThanOrEqual(kept.length ? last - first : 0)
    },
  )
  it('lasts as long as it did where the clocks went back (IANA: America/New_York, 1 November 2026 at 02:00)', () => {
    const startedAt = localToInstant('2026-11-01', '00:30', 'America/New_York')
    const endedAt = localToInstant('2026-11-01', '03:00', 'America/New_York')
    expect(timeFault({ startedAt, endedAt }, [], endedAt)).toBeNull()
    expect(workedSeconds([{ kind: 'on_site', startedAt, endedAt }], 0).on_site).toBe(3.5 * 3600)
  })
})
