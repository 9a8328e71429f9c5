import { sayDay, sayMonth } from '../../core/time/sayDay'
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { hoursMinutes, workedSeconds } from '../../core/hours/workedSeconds'
import { roundDuration } from '../../core/hours/roundDuration'
import { sayAgo } from '../../core/time/sayAgo'
import { DAY, HOUR, MINUTE } from '../../core/time/units'
import {
  dayBounds,
  localDate,
  localTime,
  localToInstant,
  plusDays,
  weekday,
} from '../../core/time/zone'
import { clockStep } from '../../core/visits/visitLifecycle'
import { workOrderState } from '../../core/visits/workOrderState'
import { uncoveredSeconds } from '../../core/costing/uncoveredSeconds'

const NY = 'America/New_York'
describe('zone arithmetic', () => {
  // Source: the IANA time zone database: New York 2024-03-10 has 23 hours, 2024-11-03 has 25.
  it.each([
    ['2024-03-10', 23],
    ['2024-11-03', 25],
    ['2024-06-01', 24],
  ])('%s has %i hours', (date, hours) => {
    const { from, to } = dayBounds(date, NY)
    expect((to - from) / 3_600_000).toBe(hours)
  })
  it('moves a time in the spring gap forward: 02:30 becomes 03:30', () =>
    expect(localTime(localToInstant('2024-03-10', '02:30', NY), NY)).toBe('03:30'))
  it('says dates', () =>
    expect([plusDays('2026-02-28', 1), weekday('2026-11-24')]).toEqual(['2026-03-01', 2]))
  // Unicode CLDR, as Intl carries it.
  it.each([
    ['en-US', 'short', 'Tue, Nov 24'],
    ['en-US', 'long', 'Tuesday, November 24'],
    ['en-US', 'withYear', 'Tue, Nov 24, 2026'],
    ['en-US', 'written', 'November 24, 2026'],
    ['en-US', 'weekday', 'Tue'],
    ['en-US', 'dayOfMonth', 'Nov 24'],
    ['de-DE', 'dayOfMonth', '24. Nov.'],
    ['en-GB', 'long', 'Tuesday 24 November'],
    ['de-DE', 'short', 'Di., 24. Nov.'],
    ['ja-JP', 'written', '2026年11月24日'],
  ] as const)('a day in %s, %s: %s', (locale, style, said) =>
    expect(sayDay('2026-11-24', locale, style)).toBe(said),
  )
  it('says the same day wherever it is said, and none that there is not', () => {
    expect(sayDay('2026-03-08', 'en-US')).toBe('Sun, Mar 8')
    expect(() => sayDay('2026-02-30', 'en-US')).toThrow(RangeError)
  })
  it.each([
    ['en-US', 'November 2026'],
    ['de-DE', 'November 2026'],
    ['fr-FR', 'novembre 2026'],
  ])('a month in %s: %s', (locale, said) => expect(sayMonth('2026-11', locale)).toBe(said))
  test.prop([fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: 4, max: 23 })])(
    'goes there and back',
    (days, hour) => {
      const date = plusDays('1980-01-01', days)
      const at = localToInstant(date, `${String(hour).padStart(2, '0')}:15`, NY)
      expect([localDate(at, NY), localTime(at, NY)]).toEqual([
        date,
        `${String(hour).padStart(2, '0')}:15`,
      ])
    },
  )
})
describe('workedSeconds', () => {
  it('sums each kind and lets the running one run to now', () =>
    expect(
      workedSeconds(
        [
          { kind: 'drive', startedAt: 0, endedAt: 60_000 },
          { kind: 'on_site', startedAt: 60_000, endedAt: null },
        ],
        180_000,
      ),
    ).toMatchObject({ drive: 60, on_site: 120, paused: 0 }))
  it('keeps the true length of a night with a clock change: 23 hours', () => {
    const { from, to } = dayBounds('2024-03-10', NY)
    expect(workedSeconds([{ kind: 'on_site', startedAt: from, endedAt: to }], to).on_site).toBe(
      23 * 3600,
    )
  })
  it('shows 2.02 h as 2:01', () => expect(hoursMinutes(2.02 * 3600)).toBe('2:01'))
})
describe('roundDuration', () => {
  // Source: 29 CFR 785.48(b): to the nearest 5 minutes, tenth or quarter of an hour.
  it.each([
    [7 * 60 + 29, 900, 0],
    [7 * 60 + 30, 900, 900],
    [22 * 60, 900, 900],
    [3 * 60, 360, 360],
    [2 * 60 + 29, 300, 0],
  ])('%i s to the nearest %i s is %i s', (s, stepSeconds, rounded) =>
    expect(roundDuration(s, { kind: 'nearest', stepSeconds })).toBe(rounded),
  )
  it('rounds up and keeps a minimum', () =>
    expect([
      roundDuration(61, { kind: 'up', stepSeconds: 900 }),
      roundDuration(60, { kind: 'nearest', stepSeconds: 900, minimumSeconds: 1800 }),
      roundDuration(77, { kind: 'exact' }),
    ]).toEqual([900, 1800, 77]))
  test.prop([fc.array(fc.integer({ min: 0, max: 36_000 }), { minLength: 2000, maxLength: 2000 })], {
    numRuns: 5,
  })(
    'does not underpay over time: the mean error of the nearest quarter is within a tenth of the step',
    (durations) => {
      const error =
        durations.reduce(
          (sum, s) => sum + roundDuration(s, { kind: 'nearest', stepSeconds: 900 }) - s,
          0,
        ) / durations.length
      expect(Math.abs(error)).toBeLessThan(90)
    },
  )
})
describe('uncoveredSeconds', () => {
  it('is what was worked beyond the lines', () =>
    expect(uncoveredSeconds({ worked: 9720, covered: 7920, explained: 0 })).toBe(1800))
  it.each([
    [9720, 7920, 1800],
    [100, 9000, 0],
    [59, 0, 0],
  ])('is nothing when explained, over-covered or under a minute', (worked, covered, explained) =>
    expect(uncoveredSeconds({ worked, covered, explained })).toBe(0),
  )
})
describe('clockStep', () => {
  it('ends the drive when work starts', () =>
    expect(clockStep('driving', 'arrive')).toEqual({ state: 'on_site', clock: 'on_site' }))
  it('walks a whole visit', () => {
    let state: Parameters<typeof clockStep>[0] = 'planned'
    for (const act of ['set_off', 'arrive', 'pause', 'resume', 'finish'] as const)
      state = clockStep(state, act)!.state
    expect(state).toBe('finished')
  })
  it.each([
    ['finished', 'finish'],
    ['planned', 'finish'],
    ['cancelled', 'arrive'],
    ['paused', 'set_off'],
  ] as const)('a %s visit cannot %s', (state, act) => expect(clockStep(state, act)).toBeNull())
})
describe('workOrderState', () => {
  const facts = {
    cancelled: false,
    closed: false,
    visits: [],
    toBillMinor: 0,
    billedMinor: 0,
    unpaidMinor: 0,
  }
  const visit = (
    state: 'planned' | 'driving' | 'on_site' | 'paused' | 'finished' | 'no_access',
    placed = true,
  ) => ({ state, placed })
  it.each([
    [{}, 'to_bill'],
    [{ visits: [visit('planned', false)] }, 'needs_slot'],
    [{ visits: [visit('planned')] }, 'scheduled'],
    [{ visits: [visit('driving')] }, 'scheduled'],
    [{ visits: [visit('finished'), visit('on_site')] }, 'on_site'],
    [{ visits: [visit('paused')] }, 'paused'],
    [{ visits: [visit('finished')] }, 'to_bill'],
    [{ visits: [visit('finished')], toBillMinor: 1, billedMinor: 5 }, 'to_bill'],
    [{ visits: [visit('finished')], billedMinor: 5, unpaidMinor: 5 }, 'billed'],
    [{ visits: [visit('finished')], billedMinor: 5 }, 'closed'],
    [{ visits: [visit('no_access')] }, 'needs_slot'],
    [{ cancelled: true, visits: [visit('on_site')] }, 'cancelled'],
    [{ closed: true }, 'closed'],
  ] as const)('%j is %s', (more, state) =>
    expect(workOrderState({ ...facts, ...more } as typeof facts)).toBe(state),
  )
})

describe('sayAgo', () => {
  // Our own wording: hours up to two days, then days; each to the nearest.
  it.each([
    [-5 * MINUTE, '0 min'],
    [0, '0 min'],
    [59.4 * MINUTE, '59 min'],
    [HOUR, '1 h'],
    [47.4 * HOUR, '47 h'],
    [2 * DAY, '2 days'],
    [9.6 * DAY, '10 days'],
  ])('%i ms are %s', (ms, said) => {
    expect(sayAgo(ms)).toBe(said)
  })
})
