// A day that is driven through, against every way in which its pauses can be taken; and what is taken out of a plan and put in again.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import type { Attempt } from '../../../core/dispatch/plan/attempt'
import { driveThrough, routeCost } from '../../../core/dispatch/plan/driveRoute'
import { fillByRegret, fillGreedily } from '../../../core/dispatch/plan/insertion'
import { PLAN_WEIGHTS, type PlanInstance } from '../../../core/dispatch/plan/instance'
import { problemOf, routesOf, type Problem } from '../../../core/dispatch/plan/problem'
import {
  neighbours,
  removeAny,
  removeDays,
  removeStrings,
} from '../../../core/dispatch/plan/removal'
import { seeded } from '../../../core/random/seeded'
import { HOUR } from '../../../core/time/units'

const SECONDS = HOUR / 1000
const hour = (n: number) => n * SECONDS
const PLACES = 6
const minutes = (min: number, max: number) => fc.integer({ min, max }).map((n) => n * 60)
const drives = fc.array(minutes(0, 50), { minLength: PLACES ** 2, maxLength: PLACES ** 2 })
const window = fc.option(
  fc
    .tuple(fc.integer({ min: 8, max: 15 }), fc.integer({ min: 0, max: 3 }), fc.boolean())
    .map(([from, length, hard]) => ({ from: hour(from), to: hour(from + length), hard })),
  { nil: undefined },
)
const pause = fc
  .tuple(fc.integer({ min: 10, max: 13 }), fc.integer({ min: 0, max: 2 }), minutes(15, 60))
  .map(([from, length, seconds]) => ({ from: hour(from), to: hour(from + length), seconds }))
const visits = fc.array(
  fc.record({ place: fc.nat(PLACES - 1), seconds: minutes(15, 120), window }),
  {
    minLength: 1,
    maxLength: 4,
  },
)
const instance = fc
  .record({
    drive: drives,
    visits,
    breaks: fc.array(pause, { maxLength: 2 }),
    end: fc.option(fc.nat(PLACES - 1)),
    overtimeMost: fc.constantFrom(0, hour(2), hour(9)),
  })
  .map(({ drive, visits: all, breaks, end, overtimeMost }): PlanInstance => ({
    places: PLACES,
    drive,
    technicians: [
      { id: 'k', start: 0, end, shift: { from: hour(8), to: hour(17) }, breaks, overtimeMost },
    ],
    visits: all.map((visit, i) => ({ ...visit, id: `v${i}` })),
  }))

/** The cheapest day over every choice of the edge at which each pause is taken; Infinity where there is none. */
function cheapest(p: Problem): number {
  const [tech] = p.technicians
  const w = p.weights
  const legs = p.visits.map((visit, i) => {
    const from = i ? p.visits[i - 1]!.place : tech!.start
    return p.drive[from * p.places + visit.place]!
  })
  const work = p.visits.reduce((sum, visit) => sum + visit.seconds, 0)
  const home = tech!.end >= 0 ? p.drive[p.visits.at(-1)!.place * p.places + tech!.end]! : 0
  const driving = legs.reduce((sum, leg) => sum + leg, home)
  const common = w.driving * driving + w.evenness * (work / SECONDS) ** 2
  const rest = (t: number, due: { from: number; seconds: number }) =>
    Math.max(t, due.from) + due.seconds
  /** All that can still happen from a visit on, at a time, with the pauses that are left. */
  function from(i: number, time: number, next: number, paid: number): number {
    const visit = p.visits[i]
    if (!visit) {
      const t = tech!.breaks
        .slice(next)
        .reduce((at, due) => (at >= due.from ? rest(at, due) : at), time)
      const over = Math.max(0, t + home - tech!.to)
      return over > tech!.overtimeMost ? Infinity : common + w.overtime * over + paid
    }
    let best = Infinity
    let t = time
    for (let taken = next; taken <= tech!.breaks.length; taken++) {
      if (taken > next) t = rest(t, tech!.breaks[taken - 1]!)
      const arrive = Math.max(t + legs[i]!, visit.from)
      const due = tech!.breaks[taken]
      if (due && arrive + visit.seconds > due.to) continue
      const missed = Math.max(0, arrive - visit.to)
      if (missed && visit.hard) continue
      const penalty = missed ? w.broken + w.late * missed : 0
      best = Math.min(best, from(i + 1, arrive + visit.seconds, taken, paid + penalty))
    }
    return best
  }
  return from(0, tech!.from, 0, 0)
}
const inOrder = (p: Problem) => p.visits.map((_, i) => i)

describe('a day that is driven', () => {
  test.prop([instance])('costs what the best way to take its pauses costs', (of) => {
    const p = problemOf(of)
    const cost = routeCost(p, 0, inOrder(p))
    const best = cheapest(p)
    if (best === Infinity) expect(cost).toBe(Infinity)
    else expect(cost).toBeCloseTo(best, 3)
  })
  test.prop([instance])(
    'is told as it costs: in order, within windows or late, home at its end',
    (of) => {
      const p = problemOf(of)
      const day = driveThrough(p, 0, inOrder(p))
      expect(day.cost).toBe(routeCost(p, 0, inOrder(p)))
      if (day.cost === Infinity) return
      day.starts.forEach((start, i) => {
        const visit = p.visits[i]!
        const from = i ? p.visits[i - 1]!.place : 0
        const free = i ? day.starts[i - 1]! + p.visits[i - 1]!.seconds : p.technicians[0]!.from
        expect(start).toBeGreaterThanOrEqual(free + p.drive[from * PLACES + visit.place]!)
        expect(start).toBeGreaterThanOrEqual(visit.from)
        if (visit.hard) expect(start).toBeLessThanOrEqual(visit.to)
      })
      expect(day.broken).toBe(day.starts.filter((start, i) => start > p.visits[i]!.to).length)
      expect(day.over).toBe(Math.max(0, day.end - p.technicians[0]!.to))
    },
  )
  test.prop([instance])('costs no less with a visit more', (of) => {
    const p = problemOf({ ...of, technicians: [{ ...of.technicians[0]!, breaks: [] }] })
    // Where each way is at least as short as the one by somewhere else.
    for (let via = 0; via < PLACES; via++)
      for (let a = 0; a < PLACES; a++)
        for (let b = 0; b < PLACES; b++)
          p.drive[a * PLACES + b] = Math.min(
            p.drive[a * PLACES + b]!,
            p.drive[a * PLACES + via]! + p.drive[via * PLACES + b]!,
          )
    const all = inOrder(p)
    expect(routeCost(p, 0, all)).toBeGreaterThanOrEqual(routeCost(p, 0, all.slice(0, -1)) - 1e-6)
  })
  it('without a visit costs nothing, and ends where it began', () => {
    const p = problemOf({
      places: 1,
      drive: [0],
      technicians: [{ id: 'k', start: 0, end: 0, shift: { from: hour(8), to: hour(17) } }],
      visits: [{ id: 'v', place: 0, seconds: 60 }],
    })
    expect(driveThrough(p, 0, [])).toMatchObject({ starts: [], end: hour(8), over: 0, cost: 0 })
  })
  it('of somebody who may not go there cannot be', () => {
    const p = problemOf({
      places: 1,
      drive: [0],
      technicians: [{ id: 'k', start: 0, end: 0, shift: { from: 0, to: hour(9) }, skills: [] }],
      visits: [{ id: 'v', place: 0, seconds: 60, skills: ['pumps'] }],
    })
    expect(routeCost(p, 0, [0])).toBe(Infinity)
    expect(driveThrough(p, 0, [0]).starts).toEqual([NaN])
  })
})

describe('what is taken out of a plan, and put in again', () => {
  const COUNT = 14
  const some = (seed: number, locked: readonly number[] = []): Attempt => {
    const random = seeded(seed)
    const p = problemOf({
      places: COUNT + 1,
      drive: Array.from({ length: (COUNT + 1) ** 2 }, () => Math.floor(random() * 1800)),
      technicians: ['a', 'b', 'c'].map((id) => ({
        id,
        start: 0,
        end: 0,
        shift: { from: hour(8), to: hour(17) },
        overtimeMost: hour(9),
      })),
      visits: Array.from({ length: COUNT }, (_, i) => ({
        id: `v${i}`,
        place: i + 1,
        seconds: 1800,
        locked: locked.includes(i),
      })),
    })
    const routes = ['a', 'b', 'c'].map((technicianId, k) => ({
      technicianId,
      visitIds: Array.from({ length: COUNT }, (_, i) => i)
        .filter((i) => i % 3 === k)
        .map((i) => `v${i}`),
    }))
    const inIndices = routesOf(p, { routes, unserved: [] })
    const where = new Int32Array(COUNT)
    inIndices.forEach((route, k) => route.forEach((v) => (where[v] = k)))
    const costs = inIndices.map((route, k) => routeCost(p, k, route))
    return { p, random, routes: inIndices, costs, where, touched: new Set() }
  }
  const served = (a: Attempt) => a.routes.flat().toSorted((x, y) => x - y)
  const REMOVALS: readonly [string, (a: Attempt) => number[]][] = [
    ['strings', (a) => removeStrings(a, neighbours(a.p))],
    ['any', (a) => removeAny(a, 5)],
    ['days', (a) => removeDays(a, 2)],
  ]
  describe.each(REMOVALS)('by %s', (_, remove) => {
    test.prop([fc.nat()])('is out of every day, and nothing else is', (seed) => {
      const a = some(seed)
      const before = served(a)
      const out = remove(a)
      expect(out.length).toBeGreaterThan(0)
      expect([...served(a), ...out].toSorted((x, y) => x - y)).toEqual(before)
      for (const v of before) expect(a.where[v] === -1).toBe(out.includes(v))
      a.routes.forEach((route, k) => route.forEach((v) => expect(a.where[v]).toBe(k)))
    })
    test.prop([fc.nat(), fc.uniqueArray(fc.nat(COUNT - 1), { maxLength: 6 })])(
      'is never what is locked',
      (seed, locked) => {
        const out = remove(some(seed, locked))
        expect(out.filter((v) => locked.includes(v))).toEqual([])
      },
    )
  })
  test.prop([fc.nat()])('comes in again, each visit once, at what the days then cost', (seed) => {
    for (const fill of [
      (a: Attempt, out: number[]) => fillGreedily(a, out, 0),
      (a: Attempt, out: number[]) => fillByRegret(a, out),
    ]) {
      const a = some(seed)
      const before = served(a)
      const out = removeAny(a, 6)
      // Whoever takes something out says what the days cost without it.
      for (const k of a.touched) a.costs[k] = routeCost(a.p, k, a.routes[k]!)
      const left = fill(a, out)
      expect([...served(a), ...left].toSorted((x, y) => x - y)).toEqual(before)
      a.routes.forEach((route, k) => expect(a.costs[k]).toBeCloseTo(routeCost(a.p, k, route), 6))
    }
  })
})

describe('an instance', () => {
  const fine: PlanInstance = {
    places: 2,
    drive: [0, 60, 60, 0],
    technicians: [{ id: 'k', start: 0, end: null, shift: { from: 0, to: hour(9) } }],
    visits: [{ id: 'v', place: 1, seconds: 600 }],
  }
  it('leaves out what nobody says', () => {
    const {
      technicians,
      visits: [visit],
      weights,
    } = problemOf(fine)
    expect(technicians[0]).toMatchObject({ end: -1, overtimeMost: 0, visitsMost: Infinity })
    expect(visit).toMatchObject({ from: -Infinity, to: Infinity, hard: false, crew: -1 })
    expect(weights).toEqual(PLAN_WEIGHTS)
  })
  it.each<[Partial<PlanInstance>, string]>([
    [{ drive: [0, 60, 60] }, 'The matrix has 3 entries; 2 places need 4.'],
    [{ drive: [0, -1, 60, 0] }, 'missing or negative'],
    [{ drive: [0, NaN, 60, 0] }, 'missing or negative'],
    [{ technicians: [{ ...fine.technicians[0]!, start: 7 }] }, 'k is at place 7'],
    [
      { technicians: [...fine.technicians, ...fine.technicians] },
      'Two technicians have the same name.',
    ],
    [
      { technicians: [{ ...fine.technicians[0]!, shift: { from: 9, to: 8 } }] },
      'ends before it begins',
    ],
    [{ visits: [...fine.visits, ...fine.visits] }, 'Two visits have the same name.'],
    [{ visits: [{ ...fine.visits[0]!, seconds: -1 }] }, 'Visit v has no length.'],
    [
      { visits: [{ ...fine.visits[0]!, window: { from: 9, to: 8 } }] },
      'The window of v ends before',
    ],
    [{ visits: [{ ...fine.visits[0]!, crew: 'c' }] }, 'begin together: say when'],
    [
      { visits: [{ ...fine.visits[0]!, crew: 'c', window: { from: 8, to: 9 } }] },
      'begins and ends at one moment',
    ],
  ])('that cannot be is refused with a sentence: %#', (over, sentence) =>
    expect(() => problemOf({ ...fine, ...over })).toThrow(sentence),
  )
  it.each([
    [[{ technicianId: 'nobody', visitIds: [] }], 'who is not among the technicians'],
    [[{ technicianId: 'k', visitIds: ['w'] }], 'which is not in the instance'],
    [[{ technicianId: 'k', visitIds: ['v', 'v'] }], 'has visit v twice'],
  ])('takes no plan that names what it has not: %#', (routes, sentence) =>
    expect(() => routesOf(problemOf(fine), { routes, unserved: [] })).toThrow(sentence),
  )
})
