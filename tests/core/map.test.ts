// What the map is drawn from, capacity by half days, and what is said of a visit that does not quite fit.
import { fc, test } from '@fast-check/vitest'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { halfDayCapacity } from '../../core/dispatch/halfDayCapacity'
import { mapGround } from '../../core/dispatch/mapGround'
import { readRoads } from '../../core/dispatch/roads/readRoads'
import { roadSeconds, roadWay } from '../../core/dispatch/roads/roadSeconds'
import { greatCircle } from '../../core/dispatch/greatCircle'
import { SOFT_WARNINGS, visitWarnings } from '../../core/dispatch/visitWarnings'
import { writeIcs } from '../../core/formats/ics'
import { demoRoads } from '../../demo/roads'
import { TOWNS } from '../../demo/towns'
import { workOrderState } from '../../core/visits/workOrderState'

const NOON = 12 * 3_600_000
const hour = (h: number) => h * 3_600_000
describe('capacity by half days', () => {
  // Common practice of the trade: three technicians at 3 and 3 make 9 and 9, and 6 and 6 when one is away.
  it('is the sum of the people who are there', () => {
    const three = [[], [], []] as { from: number; to: number }[][]
    const sum = (away: typeof three) =>
      away
        .map((a) => halfDayCapacity({ morning: 3, afternoon: 3 }, a, NOON))
        .reduce((n, c) => [n[0]! + c.morning, n[1]! + c.afternoon], [0, 0])
    expect(sum(three)).toEqual([9, 9])
    expect(sum([[], [], [{ from: 0, to: hour(24) }]])).toEqual([6, 6])
  })
  it('loses the half in whose middle somebody is away, and no other', () => {
    const of = (from: number, to: number) =>
      Object.values(
        halfDayCapacity({ morning: 2, afternoon: 3 }, [{ from: hour(from), to: hour(to) }], NOON),
      )
    expect([of(8, 11), of(8, 10), of(13, 15), of(10, 14), of(9, 16)]).toEqual([
      [0, 3],
      [2, 3],
      [2, 0],
      [0, 3],
      [0, 0],
    ])
  })
  it('is nothing for who does not work', () =>
    expect(halfDayCapacity(undefined, [], NOON)).toEqual({ morning: 0, afternoon: 0 }))
})
describe('the way of a drive', () => {
  const roads = readRoads(demoRoads())
  it.each([
    [0, 5],
    [3, 4],
    [1, 2],
  ])(
    'from town %i to town %i runs along roads from door to door, and takes what the drive takes',
    (a, b) => {
      const [from, to] = [TOWNS[a]!, TOWNS[b]!]
      const way = roadWay(roads, from, to)!
      expect([way[0], way.at(-1)]).toEqual([
        [from.lon, from.lat],
        [to.lon, to.lat],
      ])
      const known = new Set([...roads.lat.keys()].map((i) => `${roads.lon[i]} ${roads.lat[i]}`))
      expect(way.slice(1, -1).every((p) => known.has(p.join(' ')))).toBe(true)
      // No road is faster than the fastest: the line cannot be longer than the drive allows, nor shorter than the straight line.
      const metres = way
        .slice(1)
        .reduce(
          (n, p, i) =>
            n + greatCircle({ lat: way[i]![1], lon: way[i]![0] }, { lat: p[1], lon: p[0] }),
          0,
        )
      expect(metres).toBeGreaterThanOrEqual(greatCircle(from, to) - 1)
      expect(metres / roads.fastest).toBeLessThanOrEqual(roadSeconds(roads, from, to)!)
    },
  )
  it('is none where no road is near', () =>
    expect(roadWay(roads, TOWNS[0]!, { lat: 50, lon: 10 })).toBeNull())
})
describe('the ground of the map', () => {
  const all = demoRoads() as {
    features: { properties: { kind?: string; speed?: number; name?: string } }[]
  }
  it('keeps waters and towns, and the fastest roads first when there are too many', () => {
    const few = mapGround(all, 160) as { features: typeof all.features }
    expect(few.features.filter((f) => f.properties.kind).length).toBe(
      all.features.filter((f) => f.properties.kind).length,
    )
    const roads = few.features.filter((f) => !f.properties.kind)
    expect(roads.length).toBeGreaterThan(0)
    expect(new Set(roads.map((r) => r.properties.speed))).toEqual(new Set([75]))
    expect(mapGround(all).features).toHaveLength(all.features.length)
  })
  it('is empty for what is no GeoJSON', () =>
    expect([null, {}, { features: [{}] }].map((d) => mapGround(d).features.length)).toEqual([
      0, 0, 0,
    ]))
  it('water is to look at: nobody drives on the river', () => {
    const dry = {
      type: 'FeatureCollection',
      features: all.features.filter((f) => f.properties.kind !== 'water'),
    }
    expect(readRoads(all).lat.length).toBe(readRoads(dry).lat.length)
  })
})
describe('what is said before a visit is placed', () => {
  const at = { technicianId: 't', startAt: hour(11), endAt: hour(13) }
  const facts = (kind: string) => ({
    working: [{ from: hour(8), to: hour(17) }],
    timeOff: [{ from: hour(12), to: hour(12.5), reason: 'lunch', kind }],
    others: [],
  })
  it('a break is said and holds nobody up; time off does', () => {
    const [rest] = visitWarnings(at, facts('break'), null, { name: 'Ines', day: String })
    expect([rest!.code, SOFT_WARNINGS.includes(rest!.code)]).toEqual(['break', true])
    const [off] = visitWarnings(at, facts('off'), null, { name: 'Ines', day: String })
    expect([off!.code, SOFT_WARNINGS.includes(off!.code)]).toEqual(['time_off', false])
  })
})
describe('an invitation', () => {
  const names = fc.oneof(
    fc.string({ minLength: 1, maxLength: 40 }),
    // What means something to a reader, more often than by chance.
    fc.string({ unit: fc.constantFrom('\\', ':', ';', ',', '"', '^', '\n', '\t', '=', 'a') }),
  )
  test.prop([names.filter((t) => t.trim().length > 0)], { examples: [['\\\\:']] })(
    'is read back by an independent parser, whoever sends it',
    (name) => {
      const text = writeIcs(
        name,
        [
          {
            uid: 'v@x',
            startAt: hour(9),
            endAt: hour(10),
            changedAt: 0,
            sequence: 4,
            title: 'Pump',
          },
        ],
        {
          method: 'REQUEST',
          organizer: { name, mail: 'office@example.com' },
          attendees: ['a@example.com', 'b@example.com'],
        },
      )
      const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
      const event = calendar.getFirstSubcomponent('vevent')!
      expect([
        calendar.getFirstPropertyValue('method'),
        event.getFirstPropertyValue('organizer'),
        event.getAllProperties('attendee').map((p) => p.getFirstValue()),
      ]).toEqual([
        'REQUEST',
        'mailto:office@example.com',
        ['mailto:a@example.com', 'mailto:b@example.com'],
      ])
    },
  )
})
it('a call-back closes when it is finished, unless somebody charges for it', () => {
  const facts = {
    cancelled: false,
    closed: false,
    visits: [{ state: 'finished' as const, placed: true }],
    billedMinor: 0,
    unpaidMinor: 0,
    free: true,
  }
  expect(workOrderState({ ...facts, toBillMinor: 0 })).toBe('closed')
  expect(workOrderState({ ...facts, toBillMinor: 500 })).toBe('to_bill')
  expect(
    workOrderState({ ...facts, toBillMinor: 0, visits: [{ state: 'planned', placed: false }] }),
  ).toBe('needs_slot')
})
