// What is promised of a visit: the window that is told, whether it holds, and what its customer has to be told anew.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import {
  holdsPromise,
  isSamePromise,
  isStillTrue,
  promiseFor,
  sayPromise,
  twoHoursFrom,
  type VisitPromise,
} from '../../core/visits/visitPromise'
import { whereToldStands, type At, type ToldFacts } from '../../core/waiting/whereItStands'
import { visitLifecycle } from '../../core/visits/visitLifecycle'

const ZONE = 'America/New_York'
const WINDOW: VisitPromise = { date: '2026-12-02', from: '08:00', to: '10:00' }
const DAY: VisitPromise = { date: '2026-12-02', from: null, to: null }
const at = (time: string) => Date.parse(`${time}-05:00`)

describe('two hours from the full hour (common practice of the trade)', () => {
  it.each([
    ['08:00', ['08:00', '10:00']],
    ['09:45', ['09:00', '11:00']],
    ['21:59', ['21:00', '23:00']],
    ['22:00', ['22:00', '23:59']],
    ['23:15', ['23:00', '23:59']],
  ])('%s', (start, window) => expect(twoHoursFrom(start)).toEqual(window))
  test.prop([fc.integer({ min: 0, max: 1439 })])(
    'hold the start that they are told for',
    (minute) => {
      const start = new Date(minute * 60_000).toISOString().slice(11, 16)
      const [from, to] = twoHoursFrom(start)
      expect(from <= start && start <= to && from < to).toBe(true)
    },
  )
  it('are of the day on which the visit begins where the firm is', () =>
    expect(promiseFor(at('2026-12-02T22:30'), at('2026-12-02T22:30'), ZONE)).toEqual({
      date: '2026-12-02',
      from: '22:00',
      to: '23:59',
    }))
})
it.each([
  ['planned at 08:30, expected at 09:15', '08:30', '09:15', ['08:00', '10:00']],
  [
    'planned at 08:30, expected at 10:20, behind what runs over',
    '08:30',
    '10:20',
    ['10:00', '12:00'],
  ],
])('the window that is proposed holds when somebody comes: %s', (_, start, expected, window) => {
  const { from, to } = promiseFor(at(`2026-12-02T${start}`), at(`2026-12-02T${expected}`), ZONE)
  expect([from, to]).toEqual(window)
})
it.each([
  ['early of its day', WINDOW, '2026-12-02T07:00', true],
  ['late of its window', WINDOW, '2026-12-02T10:01', false],
  ['on another day', WINDOW, '2026-12-03T09:00', false],
  ['at any hour, where the day alone is promised', DAY, '2026-12-02T17:00', true],
  ['where nothing is promised', null, '2026-12-02T17:00', true],
])('what is planned %s: whether the promise can still be said', (_, promise, time, can) =>
  expect(isStillTrue(promise, at(time), ZONE)).toBe(can),
)
describe('a promise holds', () => {
  it.each([
    ['at the beginning of its window', WINDOW, '2026-12-02T08:00', true],
    ['at its end', WINDOW, '2026-12-02T10:00', true],
    ['a minute after it', WINDOW, '2026-12-02T10:01', false],
    ['a minute before it', WINDOW, '2026-12-02T07:59', false],
    ['at its hour of another day', WINDOW, '2026-12-04T09:00', false],
    ['at any hour, where the day alone was promised', DAY, '2026-12-02T17:00', true],
    ['on no other day then', DAY, '2026-12-03T00:00', false],
    ['where nothing was promised', null, '2026-12-03T00:00', true],
  ])('%s: %#', (_, promise, time, holds) =>
    expect(holdsPromise(promise, at(time), ZONE)).toBe(holds),
  )
  it('what is promised for a start holds for that start', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 365 * 1440 }), (minutes) => {
        const start = at('2026-01-01T00:00') + minutes * 60_000
        expect(holdsPromise(promiseFor(start, start, ZONE), start, ZONE)).toBe(true)
      }),
    ))
})
it('is the same where day and window are', () =>
  expect([
    isSamePromise(WINDOW, { ...WINDOW }),
    isSamePromise(WINDOW, { ...WINDOW, to: '11:00' }),
    isSamePromise(DAY, { ...DAY, to: '11:00' }),
    isSamePromise(WINDOW, DAY),
    isSamePromise(null, DAY),
    isSamePromise(null, null),
  ]).toEqual([true, false, true, false, false, true]))
it('is said with its window, or as a day', () =>
  expect([sayPromise(WINDOW, String), sayPromise(DAY, String)]).toEqual([
    '2026-12-02, between 08:00 and 10:00',
    '2026-12-02',
  ]))

describe('who was told something else is told anew', () => {
  const today: At = {
    today: '2026-12-01',
    now: at('2026-12-01T12:00'),
    missedBefore: 0,
    dateOf: String,
    day: String,
  }
  const other = { date: '2026-12-04', from: '13:00', to: '15:00' }
  const told = { state: 'planned', told: WINDOW, promise: WINDOW } as const
  it.each<[string, ToldFacts, string]>([
    [
      'of a day that was promised since they heard of none',
      { ...told, told: null, promise: other },
      'was told of no day; now it is 2026-12-04, between 13:00 and 15:00',
    ],
    [
      'of another time',
      { ...told, promise: other },
      'was told 2026-12-02, between 08:00 and 10:00; now it is 2026-12-04, between 13:00 and 15:00',
    ],
    [
      'that nothing is promised any more',
      { ...told, promise: null },
      'was told 2026-12-02, between 08:00 and 10:00; nothing is promised now',
    ],
    [
      'that nobody comes',
      { ...told, state: 'cancelled' },
      'was told 2026-12-02, between 08:00 and 10:00; the visit is cancelled',
    ],
    [
      'of the new day, also after the old one',
      { ...told, told: { ...WINDOW, date: '2026-11-20' }, promise: other },
      'was told 2026-11-20, between 08:00 and 10:00; now it is 2026-12-04, between 13:00 and 15:00',
    ],
  ])('%s', (_, facts, reason) =>
    expect(whereToldStands(facts, today)).toEqual({ place: 'to_tell', reason, next: 'Tell them' }),
  )
  it.each<[string, ToldFacts]>([
    ['what they were told holds', told],
    ['they were told of no day, and none is promised', { ...told, told: null, promise: null }],
    ['they know of no visit that is cancelled', { ...told, state: 'cancelled', told: null }],
    ['somebody is on the way, or was there', { ...told, state: 'driving', promise: other }],
    [
      'the day of what was cancelled has passed',
      { ...told, state: 'cancelled', told: { ...WINDOW, date: '2026-11-30' } },
    ],
  ])('not where %s', (_, facts) => expect(whereToldStands(facts, today)).toHaveProperty('rest'))
  it('and every state has an answer', () =>
    expect(visitLifecycle.states.every((state) => whereToldStands({ ...told, state }, today))).toBe(
      true,
    ))
})
