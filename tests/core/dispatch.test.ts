import type { VisitPromise } from '../../core/visits/visitPromise'
import { workedOrder } from '../../core/dispatch/workedOrder'
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { Geodesic } from 'geographiclib-geodesic'
import { driveSeconds } from '../../core/dispatch/driveSeconds'
import { EARTH_RADIUS_M, greatCircle } from '../../core/dispatch/greatCircle'
import { predictDay, type DayStop } from '../../core/dispatch/predictDay'
import { visitWarnings } from '../../core/dispatch/visitWarnings'

const place = fc.record({
  lat: fc.double({ min: -85, max: 85, noNaN: true }),
  lon: fc.double({ min: -179, max: 179, noNaN: true }),
})
describe('greatCircle', () => {
  it('is half the circumference to the other side', () =>
    expect(greatCircle({ lat: 0, lon: 0 }, { lat: 0, lon: 180 })).toBeCloseTo(
      Math.PI * EARTH_RADIUS_M,
      3,
    ))
  // Source: Karney's geodesic on the ellipsoid (geographiclib); the sphere is within 0.6 % of it.
  test.prop([place, place])('stays within 0.6 % of the ellipsoid', (a, b) => {
    const exact = Geodesic.WGS84.Inverse(a.lat, a.lon, b.lat, b.lon).s12!
    fc.pre(exact > 1000)
    expect(Math.abs(greatCircle(a, b) / exact - 1)).toBeLessThan(0.006)
  })
  test.prop([place, place])('is the same both ways', (a, b) => {
    expect(greatCircle(a, b)).toBeCloseTo(greatCircle(b, a), 6)
  })
})
describe('driveSeconds', () => {
  it('takes no time to where one is', () =>
    expect(driveSeconds({ lat: 42, lon: -75 }, { lat: 42, lon: -75 })).toBe(0))
  it('takes 26 minutes for 20 km at 60 km/h with circuity 1.3', () => {
    const north = ((20_000 / EARTH_RADIUS_M) * 180) / Math.PI
    expect(driveSeconds({ lat: 0, lon: 0 }, { lat: north, lon: 0 })).toBe(26 * 60)
  })
})
const minute = 60_000
const stop = (id: string, at: number, more: Partial<DayStop> = {}): DayStop => ({
  id,
  state: 'planned',
  startAt: at * minute,
  durationSeconds: 3600,
  driveSeconds: 1200,
  promiseEnd: null,
  setOffAt: null,
  arrivedAt: null,
  finishedAt: null,
  ...more,
})
describe('predictDay', () => {
  it('lets a visit that runs over push the next, and says which promise breaks', () => {
    const [first, second] = predictDay(
      [
        stop('a', 0, { state: 'on_site', arrivedAt: 0 }),
        stop('b', 90, { promiseEnd: 150 * minute }),
      ],
      140 * minute,
    )
    expect(first!.finishAt).toBe(140 * minute)
    expect(second).toMatchObject({ arriveAt: 160 * minute, atRisk: true, lateSeconds: 600 })
  })
  it('arrives when planned where there is time', () =>
    expect(predictDay([stop('a', 60)], 0)[0]).toMatchObject({
      arriveAt: 60 * minute,
      atRisk: false,
    }))
  it('knows a drive that has begun', () =>
    expect(
      predictDay([stop('a', 60, { state: 'driving', setOffAt: 50 * minute })], 55 * minute)[0]!
        .arriveAt,
    ).toBe(70 * minute))
  it('has nothing at risk that is finished', () =>
    expect(
      predictDay(
        [
          stop('a', 0, {
            state: 'finished',
            arrivedAt: 30 * minute,
            finishedAt: 60 * minute,
            promiseEnd: minute,
          }),
        ],
        90 * minute,
      )[0]!.atRisk,
    ).toBe(false))
  it('knows where somebody still is when the day runs in another order', () => {
    // Planned A, B, C. A is under way until 15:00, B was done before it; C was promised until 14:30 (minutes of the day).
    const stops = [
      stop('a', 540, { state: 'on_site', durationSeconds: 4 * 3600, arrivedAt: 660 * minute }),
      stop('b', 780, { state: 'finished', arrivedAt: 540 * minute, finishedAt: 600 * minute }),
      stop('c', 840, { driveSeconds: 0, promiseEnd: 870 * minute }),
    ]
    expect(predictDay(stops, 670 * minute)[2]).toMatchObject({
      arriveAt: 900 * minute,
      atRisk: true,
    })
    // One that was planned before the one that runs waits for it as well.
    const [a] = predictDay(
      [
        stop('a', 540, { driveSeconds: 0 }),
        stop('b', 780, { state: 'on_site', durationSeconds: 9000, arrivedAt: 540 * minute }),
      ],
      550 * minute,
    )
    expect(a!.arriveAt).toBe(690 * minute)
  })
  it('expects whoever was seen on the way from where they were seen', () => {
    const driven = stop('a', 540, {
      state: 'driving',
      setOffAt: 540 * minute,
      driveSeconds: 3600,
      seen: { at: 560 * minute, driveSeconds: 600 },
    })
    expect(predictDay([driven], 565 * minute)[0]!.arriveAt).toBe(570 * minute)
    expect(predictDay([{ ...driven, seen: null }], 565 * minute)[0]!.arriveAt).toBe(600 * minute)
  })
  it('leaves out what was cancelled', () =>
    expect(predictDay([stop('a', 0, { state: 'cancelled' })], 0)).toEqual([]))
})
describe('workedOrder', () => {
  const stops = (...of: [startAt: number, begunAt: number | null][]) =>
    workedOrder(of.map(([startAt, begunAt]) => ({ startAt, begunAt }))).map((s) => s.startAt)
  it.each([
    [
      'as planned, where nothing has begun',
      [
        [10, null],
        [8, null],
      ],
      [8, 10],
    ],
    [
      'as begun, whatever was planned',
      [
        [8, 12],
        [10, 9],
      ],
      [10, 8],
    ],
    [
      'what has begun before what has not',
      [
        [8, null],
        [10, 9],
        [9, null],
      ],
      [10, 8, 9],
    ],
  ] as [string, [number, number | null][], number[]][])('%s', (_, of, order) =>
    expect(stops(...of)).toEqual(order),
  )
})
describe('visitWarnings', () => {
  const facts = {
    working: [{ from: 0, to: 480 * minute }],
    timeOff: [{ from: 300 * minute, to: 360 * minute, reason: 'dentist' }],
    others: [{ id: 'x', startAt: 60 * minute, endAt: 120 * minute, label: 'Tarn View, 08:00' }],
  }
  const codes = (from: number, to: number, broken: VisitPromise | null = null) =>
    visitWarnings(
      { technicianId: 't', startAt: from * minute, endAt: to * minute },
      facts,
      broken,
      { name: 'Ines', day: String },
    ).map((w) => w.code)
  it('says nothing where all is well', () => expect(codes(120, 180)).toEqual([]))
  it.each([
    [90, 150, ['clash']],
    [330, 350, ['time_off']],
    [450, 500, ['outside_hours']],
    [119, 121, ['clash']],
  ] as const)('%i to %i: %j', (from, to, wanted) => expect(codes(from, to)).toEqual(wanted))
  it('compares with what was promised', () =>
    expect(codes(200, 230, { date: '2026-12-02', from: '08:00', to: '10:00' })).toEqual([
      'outside_promise',
    ]))
  it.each([
    ['a day that has passed', { today: 500 * minute, now: 510 * minute }, 'this day has passed'],
    ['a time that has passed today', { today: 0, now: 230 * minute }, 'this time has passed'],
    [
      'one more than the half day takes',
      { half: { name: 'morning', capacity: 2, taken: 3 } },
      'over capacity: 3 of 2 in Ines’s morning',
    ],
  ])('says of %s that it is so', (_, more, sentence) => {
    const at = { technicianId: 't', startAt: 200 * minute, endAt: 230 * minute }
    const say = { name: 'Ines', day: String }
    expect(visitWarnings(at, { ...facts, ...more }, null, say).map((w) => w.text)).toEqual([
      sentence,
    ])
  })
  it('says nothing of a time that goes on, or of a half day that is just full', () => {
    const at = { technicianId: 't', startAt: 200 * minute, endAt: 230 * minute }
    const half = { name: 'morning', capacity: 3, taken: 3 }
    const more = { today: 0, now: 230 * minute - 1, half }
    expect(visitWarnings(at, { ...facts, ...more }, null, { name: 'Ines', day: String })).toEqual(
      [],
    )
  })
  it('says it in words', () =>
    expect(
      visitWarnings(
        { technicianId: 't', startAt: 310 * minute, endAt: 320 * minute },
        facts,
        null,
        { name: 'Ines', day: String },
      )[0]!.text,
    ).toBe('Ines is off then: dentist'))
})
