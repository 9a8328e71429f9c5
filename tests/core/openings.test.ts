// Openings: every gap against a search by hand over all quarters of an hour; what is softly wrong is ranked lower and never hidden.
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { postcodeRange } from '../../core/customers/postcodeRange'
import { openings } from '../../core/dispatch/openings'
import type { OpeningDay, OpeningWish } from '../../core/dispatch/opening'
import { rankOpenings } from '../../core/dispatch/rankOpenings'
import { writeIcs } from '../../core/formats/ics'
import { seeded } from '../../core/random/seeded'
import { localToInstant } from '../../core/time/zone'

const ZONE = 'America/New_York'
const at = (time: string, date = '2026-11-24') => localToInstant(date, time, ZONE)
const say = (ms: number) => new Date(ms).toISOString().slice(11, 16)
// A street of minutes: a degree of longitude is a minute of driving.
const drive = (a: { lon: number }, b: { lon: number }) => Math.abs(a.lon - b.lon) * 60
const place = (lon: number) => ({ lat: 0, lon })
const day = (over: Partial<OpeningDay> = {}): OpeningDay => ({
  technicianId: 'ines',
  name: 'Ines',
  date: '2026-11-24',
  working: [{ from: at('08:00'), to: at('16:00') }],
  noon: at('12:00'),
  blocked: [],
  start: place(0),
  end: place(0),
  stops: [],
  skills: ['pumps'],
  serves: [],
  capacity: { morning: 3, afternoon: 3 },
  taken: { morning: 0, afternoon: 0 },
  ...over,
})
const wish = (over: Partial<OpeningWish> = {}): OpeningWish => ({
  durationSeconds: 3600,
  place: place(10),
  skills: [],
  territory: '',
  after: at('07:00'),
  part: 'any',
  known: [],
  mayMove: true,
  ...over,
})
const stop = (
  id: string,
  start: string,
  minutes: number,
  lon: number,
  promiseTo: string | null = null,
  fixed = false,
) => ({
  id,
  label: id,
  startAt: at(start),
  durationSeconds: minutes * 60,
  place: place(lon),
  promiseTo: promiseTo ? at(promiseTo) : null,
  fixed,
})

describe('openings', () => {
  it('an empty day has one in the morning and one in the afternoon', () => {
    // Ten minutes from home: the day begins with leaving, as the planner counts it.
    expect(openings([day()], wish(), drive, say).map((o) => o.startAt)).toEqual([
      at('08:15'),
      at('12:00'),
    ])
  })
  it('where drives lie outside the hours, the day begins at the first visit and ends at the last', () => {
    const outside = { drivesOutside: true }
    expect(openings([day(outside)], wish(), drive, say).map((o) => o.startAt)).toEqual([
      at('08:00'),
      at('12:00'),
    ])
    // Nobody sets off before now: at 7:55 with ten minutes to drive.
    expect(
      openings([day(outside)], wish({ after: at('07:55'), part: 'morning' }), drive, say)[0]!
        .startAt,
    ).toBe(at('08:15'))
    // An hour that ends with the hours, and ten minutes home.
    const late = { durationSeconds: 3600, window: { from: at('15:00'), to: at('15:00') } }
    const [[over], [none]] = [
      openings([day()], wish(late), drive, say),
      openings([day(outside)], wish(late), drive, say),
    ]
    expect([over!.overtimeSeconds, none!.overtimeSeconds]).toEqual([600, 0])
    expect([over!.dayEndAt, none!.dayEndAt]).toEqual([at('16:10'), at('16:10')])
    // After a meeting at the beginning of the day comes the drive.
    expect(
      openings(
        [day({ ...outside, blocked: [{ from: at('08:00'), to: at('09:00') }] })],
        wish({ part: 'morning' }),
        drive,
        say,
      )[0]!.startAt,
    ).toBe(at('09:15'))
  })
  it('count the detour, not the drive: between two stops on the way it costs nothing', () => {
    const [best] = openings(
      [day({ stops: [stop('a', '08:00', 60, 5), stop('b', '12:00', 60, 20)] })],
      wish(),
      drive,
      say,
    )
    expect(best).toMatchObject({ startAt: at('09:15'), extraDriveSeconds: 0 })
    expect(best!.reasons[0]).toEqual({ code: 'driving', text: 'no more driving' })
  })
  it('a stop with room in its promise moves; one whose promise would break does not', () => {
    const stops = (promise: string) => [
      stop('a', '08:00', 60, 0),
      stop('b', '10:00', 60, 0, promise),
      stop('c', '11:15', 285, 0, '11:15'),
    ]
    const tight = openings(
      [day({ stops: stops('10:00') })],
      wish({ part: 'morning', place: place(0), durationSeconds: 5400 }),
      drive,
      say,
    )
    expect(tight).toEqual([])
    const [moved] = openings(
      [day({ stops: [stop('a', '08:00', 60, 0), stop('b', '10:00', 60, 0, '12:00')] })],
      wish({
        place: place(0),
        durationSeconds: 5400,
        window: { from: at('09:00'), to: at('09:30') },
      }),
      drive,
      say,
    )
    expect(moved).toMatchObject({
      startAt: at('09:00'),
      moved: [{ id: 'b', startAt: at('10:30') }],
    })
    expect(moved!.reasons.map((r) => r.text)).toContain(
      `b begins at ${say(at('10:30'))}, within its promise`,
    )
  })
  it('nothing moves where that is not wanted', () => {
    expect(
      openings(
        [day({ stops: [stop('a', '08:00', 60, 0), stop('b', '10:00', 60, 0, '12:00')] })],
        wish({
          place: place(0),
          durationSeconds: 5400,
          window: { from: at('09:00'), to: at('09:30') },
          mayMove: false,
        }),
        drive,
        say,
      ),
    ).toEqual([])
  })
  it('nothing goes where somebody is off, in a meeting, or another call holds the time', () => {
    const [first] = openings(
      [day({ blocked: [{ from: at('08:00'), to: at('10:10') }] })],
      wish({ part: 'morning' }),
      drive,
      say,
    )
    // Until 10:10, then ten minutes of driving: whoever was in a meeting drives after it.
    expect(first!.startAt).toBe(at('10:30'))
  })
  it('a rest is taken wherever somebody is: the drive may lie around it', () => {
    const [first] = openings(
      [day({ blocked: [{ from: at('08:05'), to: at('08:35'), rest: true }] })],
      wish({ part: 'morning' }),
      drive,
      say,
    )
    // Ten minutes of driving and thirty of rest from 8:00 on.
    expect(first!.startAt).toBe(at('08:45'))
  })
  it('a day off is closed from end to end, whatever rest lies in it', () => {
    expect(
      openings(
        [
          day({
            blocked: [
              { from: at('00:00'), to: at('23:59') },
              { from: at('12:00'), to: at('12:30'), rest: true },
            ],
          }),
        ],
        wish(),
        drive,
        say,
      ),
    ).toEqual([])
  })
  it('nobody sets off before now', () => {
    const [first] = openings([day()], wish({ part: 'morning', after: at('09:30') }), drive, say)
    expect(first!.startAt).toBe(at('09:45'))
  })
  it('a meeting before the next stop has its drive after it', () => {
    const busy = day({
      stops: [stop('a', '11:00', 60, 0)],
      blocked: [{ from: at('10:00'), to: at('10:55') }],
    })
    expect(
      openings(
        [busy],
        wish({ part: 'morning', window: { from: at('08:00'), to: at('09:00') }, mayMove: false }),
        drive,
        say,
      ),
    ).toEqual([])
  })
  it('over time is what runs beyond the last stretch of work, and nothing goes into the gap between two', () => {
    const split = day({
      working: [
        { from: at('08:00'), to: at('12:00') },
        { from: at('13:00'), to: at('17:00') },
      ],
      stops: [stop('late', '16:00', 60, 0)],
    })
    const found = openings([split], wish({ place: place(0) }), drive, say)
    expect(found.map((o) => o.overtimeSeconds)).toEqual([0, 0])
    expect(
      found.every((o) => o.startAt + 3_600_000 <= at('12:00') || o.startAt >= at('13:00')),
    ).toBe(true)
  })
  it('what is softly wrong is offered after what is sound, with its reason', () => {
    const days = [
      day({ technicianId: 'far', serves: ['The marsh'] }),
      day({ technicianId: 'full', taken: { morning: 3, afternoon: 3 } }),
      day({ technicianId: 'new', skills: [] }),
      day({ technicianId: 'good' }),
    ]
    const found = openings(
      days,
      wish({ territory: 'The tarns', skills: ['pumps'], part: 'morning' }),
      drive,
      say,
    )
    expect(found[0]!.technicianId).toBe('good')
    expect(found.map((o) => o.technicianId).sort()).toEqual(['far', 'full', 'good', 'new'])
    expect(found.find((o) => o.technicianId === 'far')!.reasons.map((r) => r.text)).toContain(
      'serves The marsh',
    )
    expect(found.find((o) => o.technicianId === 'full')!.reasons.map((r) => r.text)).toContain(
      'over capacity: 3 of 3 in the morning',
    )
    expect(found.find((o) => o.technicianId === 'new')!.reasons.map((r) => r.text)).toContain(
      'lacks pumps',
    )
    for (const order of ['first', 'cheapest', 'known'] as const)
      expect(rankOpenings(found, order)[0]!.technicianId).toBe('good')
  })
  it('whom the customer knows comes first when that is asked for', () => {
    const found = openings(
      [
        day({ technicianId: 'near' }),
        day({ technicianId: 'known', start: place(60), end: place(60) }),
      ],
      wish({ known: ['known'], part: 'morning' }),
      drive,
      say,
    )
    expect(rankOpenings(found, 'best')[0]!.technicianId).toBe('near')
    expect(rankOpenings(found, 'known')[0]!.technicianId).toBe('known')
    expect(rankOpenings(found, 'cheapest')[0]!.extraDriveSeconds).toBeLessThanOrEqual(
      found[1]!.extraDriveSeconds,
    )
  })
  it('never overlaps, never leaves too little for a drive, never begins too early: random days', () => {
    const random = seeded(5)
    for (let n = 0; n < 300; n++) {
      const stops = []
      let t = at('08:00')
      for (let i = 0; i < 4; i++) {
        t += Math.floor(random() * 8) * 900_000
        const s = {
          ...stop(`s${i}`, '08:00', 15 * (1 + Math.floor(random() * 5)), Math.floor(random() * 30)),
          startAt: t,
          promiseTo: random() < 0.5 ? t + 1_800_000 : null,
          fixed: random() < 0.2,
        }
        stops.push(s)
        t += s.durationSeconds * 1000
      }
      const w = wish({
        durationSeconds: 900 * (1 + Math.floor(random() * 6)),
        place: place(Math.floor(random() * 30)),
        after: at('07:00') + Math.floor(random() * 12) * 1_800_000,
      })
      for (const o of openings([day({ stops })], w, drive, say)) {
        const moved = new Map(o.moved.map((m) => [m.id, m.startAt]))
        const all = [
          ...stops.map((s) => ({
            from: moved.get(s.id) ?? s.startAt,
            length: s.durationSeconds,
            place: s.place,
            id: s.id,
          })),
          { from: o.startAt, length: w.durationSeconds, place: w.place!, id: 'new' },
        ].sort((a, b) => a.from - b.from)
        const i = all.findIndex((x) => x.id === 'new')
        expect(o.startAt).toBeGreaterThanOrEqual(w.after)
        expect(o.startAt % 900_000).toBe(0)
        const before = all[i - 1]
        const next = all[i + 1]
        if (before)
          expect(
            before.from + before.length * 1000 + drive(before.place!, w.place!) * 1000,
          ).toBeLessThanOrEqual(o.startAt)
        if (next)
          expect(
            o.startAt + w.durationSeconds * 1000 + drive(w.place!, next.place!) * 1000,
          ).toBeLessThanOrEqual(next.from)
        for (const s of stops)
          if (moved.has(s.id))
            expect([s.fixed, s.promiseTo === null || moved.get(s.id)! <= s.promiseTo]).toEqual([
              false,
              true,
            ])
      }
    }
  })
})
describe('postcodes as people write them', () => {
  it.each([
    ['04101–04103, 04110', ['04101', '04102', '04103', '04110']],
    ['04103 04101', ['04101', '04103']],
    ['0410 - 0411', ['0410', '0411']],
    ['sw1a', ['SW1A']],
    ['', []],
    ['00098-00101', ['00098', '00099', '00100', '00101']],
  ])('%s', (text, codes) => expect(postcodeRange(text)).toEqual(codes))
  it.each(['04110-04101', '100-2000', '10000-99999'])('%s is refused', (text) =>
    expect(() => postcodeRange(text)).toThrow(/range/),
  )
})
it('a calendar is read by an independent parser as it was written (ical.js)', () => {
  const text = writeIcs('Ines; pumps', [
    {
      uid: 'v1@open-ledger',
      startAt: at('09:00'),
      endAt: at('10:30'),
      changedAt: at('07:00'),
      sequence: 3,
      title: 'Pump, no water; urgent',
      place: 'Höfe 12, Otterfall',
      text: `Line one\nLine two, with a \\ and ${'long '.repeat(40)}`,
      at: { lat: 42.7, lon: -75.1 },
    },
  ])
  expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true)
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
  const event = new ICAL.Event(calendar.getFirstSubcomponent('vevent')!)
  expect([event.uid, event.summary, event.location, event.sequence]).toEqual([
    'v1@open-ledger',
    'Pump, no water; urgent',
    'Höfe 12, Otterfall',
    3,
  ])
  expect(event.startDate.toJSDate().getTime()).toBe(at('09:00'))
  expect(event.endDate.toJSDate().getTime()).toBe(at('10:30'))
  expect(event.description).toContain('Line one\nLine two, with a \\ and long')
})
