// The planner against what others proved: Solomon's published optimum, and a general MILP solver on small days with skills and homes.
import highs from 'highs'
import { describe, expect, it } from 'vitest'
import { describePlan } from '../../../core/dispatch/plan/describePlan'
import type { Plan, PlanInstance } from '../../../core/dispatch/plan/instance'
import { planDays } from '../../../core/dispatch/plan/planDays'
import { readPlanInstance } from '../../../core/formats/planInstance'
import { seeded } from '../../../core/random/seeded'
import { planProblem } from '../../../demo/planProblems'
import { optimum } from './optimum'

function solve(instance: PlanInstance, tries: number, seed = 1, given?: Plan) {
  const search = planDays(instance, { random: seeded(seed), every: 100, given })
  let report = search.next()
  while (!report.done) report = search.next(report.value.tries / tries)
  return report.value
}
/** Source: M. M. Solomon, Operations Research 35 (1987), R101, first 25 customers; optimum 617.1 with distances truncated to one decimal. */
const R101 = JSON.stringify({
  capacity: 200,
  columns: ['id', 'x', 'y', 'demand', 'ready', 'due', 'service'],
  rows: [
    [0, 35, 35, 0, 0, 230, 0],
    [1, 41, 49, 10, 161, 171, 10],
    [2, 35, 17, 7, 50, 60, 10],
    [3, 55, 45, 13, 116, 126, 10],
    [4, 55, 20, 19, 149, 159, 10],
    [5, 15, 30, 26, 34, 44, 10],
    [6, 25, 30, 3, 99, 109, 10],
    [7, 20, 50, 5, 81, 91, 10],
    [8, 10, 43, 9, 95, 105, 10],
    [9, 55, 60, 16, 97, 107, 10],
    [10, 30, 60, 16, 124, 134, 10],
    [11, 20, 65, 12, 67, 77, 10],
    [12, 50, 35, 19, 63, 73, 10],
    [13, 30, 25, 23, 159, 169, 10],
    [14, 15, 10, 20, 32, 42, 10],
    [15, 30, 5, 8, 61, 71, 10],
    [16, 10, 20, 19, 75, 85, 10],
    [17, 5, 30, 2, 157, 167, 10],
    [18, 20, 40, 12, 87, 97, 10],
    [19, 15, 60, 17, 76, 86, 10],
    [20, 45, 65, 9, 126, 136, 10],
    [21, 45, 20, 11, 62, 72, 10],
    [22, 45, 10, 18, 97, 107, 10],
    [23, 55, 5, 29, 68, 78, 10],
    [24, 65, 35, 3, 153, 163, 10],
    [25, 65, 20, 6, 172, 182, 10],
  ],
})
describe('against published and proven optima', () => {
  it('finds the optimum of Solomon’s R101 with 25 customers, 617.1', () => {
    const { instance, scale } = readPlanInstance(R101)
    const { plan } = solve(instance, 6000)
    const facts = describePlan(instance, plan)
    expect(facts.driving / scale).toBe(617.1)
    expect([facts.unserved, facts.days.filter((d) => d.stops.length).length]).toEqual([[], 8])
  })
  it('comes to the optimum that a MILP solver proves, on days with skills, homes and windows', async () => {
    const solver = await (highs as unknown as () => Promise<Parameters<typeof optimum>[1]>)()
    for (const seed of [1, 2, 3, 4, 5, 6, 7, 8]) {
      const instance = planProblem(seed, 3, 7, true)
      const ratio = solve(instance, 2000, seed).cost / optimum(instance, solver)
      expect(ratio, `seed ${seed}`).toBeGreaterThan(0.999999)
      expect(ratio, `seed ${seed}`).toBeLessThan(1.000001)
    }
  }, 60_000)
})
describe('what it keeps to', () => {
  const day = planProblem(42, 4, 18, false)
  it('the same seed gives the same plan, another one may not', () => {
    expect(solve(day, 800, 3).plan).toEqual(solve(day, 800, 3).plan)
  })
  it('is never worse than what it was given, also when it is stopped at once', () => {
    const good = solve(day, 3000)
    const search = planDays(day, { random: seeded(9), given: good.plan })
    expect((search.next().value as { cost: number }).cost).toBeCloseTo(good.cost, 6)
    expect((search.next(1).value as { cost: number }).cost).toBeCloseTo(good.cost, 6)
    expect(solve(day, 500, 9, good.plan).cost).toBeLessThanOrEqual(good.cost + 1e-9)
  })
  it('what it says a plan costs is what the plan costs, driven through on its own', () => {
    const { plan, cost } = solve(day, 600)
    expect(describePlan(day, plan).total).toBeCloseTo(cost, 6)
  })
  it('nobody goes without the skill, and what nobody can do is left out', () => {
    const instance: PlanInstance = {
      ...day,
      visits: day.visits.map((v, i) => (i === 0 ? { ...v, skills: ['diving'] } : v)),
    }
    const { plan } = solve(instance, 400)
    expect(plan.unserved).toContain('v0')
    for (const r of plan.routes) {
      const skills = day.technicians.find((t) => t.id === r.technicianId)!.skills!
      for (const id of r.visitIds)
        expect(skills).toEqual(
          expect.arrayContaining([...(day.visits.find((v) => v.id === id)!.skills ?? [])]),
        )
    }
  })
  it('what is locked stays with its technician, in its order', () => {
    const given = solve(day, 300).plan
    const route = given.routes.find((r) => r.visitIds.length > 2)!
    const locked = new Set(route.visitIds.slice(0, 2))
    const instance: PlanInstance = {
      ...day,
      visits: day.visits.map((v) => ({ ...v, locked: locked.has(v.id) })),
    }
    const after = solve(instance, 800, 5, given).plan.routes.find(
      (r) => r.technicianId === route.technicianId,
    )!
    expect(after.visitIds.filter((v) => locked.has(v))).toEqual(route.visitIds.slice(0, 2))
  })
  it('a visit of two technicians gets two different ones', () => {
    const at = 10 * 3600
    const crew = (id: string) => ({
      id,
      place: 4,
      seconds: 3600,
      crew: 'pump',
      window: { from: at, to: at },
    })
    const { plan } = solve(
      { ...day, visits: [crew('a'), crew('b'), ...day.visits.slice(0, 8)] },
      400,
    )
    const of = (id: string) => plan.routes.find((r) => r.visitIds.includes(id))?.technicianId
    expect(of('a')).toBeDefined()
    expect(of('b')).toBeDefined()
    expect(of('a')).not.toBe(of('b'))
  })
  it('sends nobody for half of a crew, and asks for the moment at which a crew begins', () => {
    const at = 10 * 3600
    const crew = (id: string, skills: string[]) => ({
      id,
      place: 4,
      seconds: 3600,
      crew: 'pump',
      window: { from: at, to: at },
      skills,
    })
    const { plan } = solve(
      { ...day, visits: [crew('a', []), crew('b', ['diving']), ...day.visits.slice(0, 6)] },
      400,
    )
    expect(plan.unserved).toEqual(expect.arrayContaining(['a', 'b']))
    const wide = { ...day, visits: [{ ...crew('a', []), window: { from: at, to: at + 14_400 } }] }
    expect(() => solve(wide, 10)).toThrow('begin together')
  })
  it('keeps to the number of visits and the load that a technician takes', () => {
    const few: PlanInstance = {
      ...day,
      technicians: day.technicians.map((t) => ({ ...t, visitsMost: 3, loadMost: 4 })),
      visits: day.visits.map((v) => ({ ...v, load: 2 })),
    }
    for (const r of solve(few, 400).plan.routes) expect(r.visitIds.length).toBeLessThanOrEqual(2)
  })
  it('a pause is taken between two visits, within its time', () => {
    const instance: PlanInstance = {
      places: 1,
      drive: [0],
      technicians: [
        {
          id: 't',
          start: 0,
          end: 0,
          shift: { from: 8 * 3600, to: 17 * 3600 },
          breaks: [{ from: 11 * 3600, to: 13 * 3600, seconds: 1800 }],
        },
      ],
      visits: ['a', 'b', 'c', 'd'].map((id) => ({ id, place: 0, seconds: 5400 })),
    }
    const { days } = describePlan(instance, {
      routes: [{ technicianId: 't', visitIds: ['a', 'b', 'c', 'd'] }],
      unserved: [],
    })
    // 8:00, 9:30, 11:00, then the pause at 12:30, 13:00.
    expect(days[0]!.stops.map((s) => s.start / 3600)).toEqual([8, 9.5, 11, 13])
  })
  it('a pause is taken where it costs least within its span: a sound day is not called broken', () => {
    const at = (hour: number) => hour * 3600
    const instance: PlanInstance = {
      places: 1,
      drive: [0],
      technicians: [
        {
          id: 't',
          start: 0,
          end: 0,
          shift: { from: at(8), to: at(17) },
          breaks: [{ from: at(11), to: at(13), seconds: 1800 }],
        },
      ],
      visits: [
        { id: 'a', place: 0, seconds: at(3) },
        { id: 'b', place: 0, seconds: at(1), window: { from: at(11), to: at(11.25) } },
      ],
    }
    const facts = describePlan(instance, {
      routes: [{ technicianId: 't', visitIds: ['a', 'b'] }],
      unserved: [],
    })
    expect([facts.broken, facts.days[0]!.stops.map((s) => s.start / 3600)]).toEqual([0, [8, 11]])
  })
  it('where drives lie outside the shift, it begins with the first visit and ends with the last', () => {
    const at = (hour: number) => hour * 3600
    const technician = {
      id: 't',
      start: 0,
      end: 0,
      shift: { from: at(8), to: at(16) },
      overtimeMost: at(2),
    }
    const day = (outside?: { setsOff: number }) =>
      describePlan(
        {
          places: 2,
          drive: [0, 1800, 1800, 0],
          technicians: [{ ...technician, outside }],
          visits: [{ id: 'a', place: 1, seconds: at(8) }],
        },
        { routes: [{ technicianId: 't', visitIds: ['a'] }], unserved: [] },
      ).days[0]!
    expect([day().stops[0]!.start, day().end, day().overtime]).toEqual([at(8.5), at(17), at(1)])
    expect([
      day({ setsOff: 0 }).stops[0]!.start,
      day({ setsOff: 0 }).end,
      day({ setsOff: 0 }).overtime,
    ]).toEqual([at(8), at(16.5), 0])
    // Whoever sets off at 7:45 is there at 8:15.
    expect([
      day({ setsOff: at(7.75) }).stops[0]!.start,
      day({ setsOff: at(7.75) }).overtime,
    ]).toEqual([at(8.25), at(0.25)])
  })
  it('places pauses as well as trying every edge does, on days drawn by chance', () => {
    const random = seeded(11)
    const between = (a: number, b: number) => a + Math.floor(random() * (b - a + 1))
    for (let n = 0; n < 150; n++) {
      const count = between(2, 6)
      const places = count + 1
      const drive = Array.from({ length: places * places }, (_, i) =>
        i % (places + 1) === 0 ? 0 : between(5, 40) * 60,
      )
      const pause = { from: 11 * 3600, to: 13 * 3600, seconds: 1800 }
      const visits = Array.from({ length: count }, (_, i) => {
        const from = between(8, 15) * 3600
        return {
          id: `v${i}`,
          place: i + 1,
          seconds: between(1, 6) * 1800,
          ...(random() < 0.6 ? { window: { from, to: from + between(0, 4) * 1800 } } : {}),
        }
      })
      const technician = {
        id: 't',
        start: 0,
        end: 0,
        shift: { from: 8 * 3600, to: 17 * 3600 },
        overtimeMost: Infinity,
        breaks: [pause],
        outside: n % 2 ? { setsOff: 7.75 * 3600 } : undefined,
      }
      const facts = describePlan(
        { places, drive, visits, technicians: [technician] },
        { routes: [{ technicianId: 't', visitIds: visits.map((v) => v.id) }], unserved: [] },
      )
      // By hand: the pause before each visit in turn, or after the last, as long as it begins within its span.
      let best = Infinity
      for (let edge = 0; edge <= count; edge++) {
        let [t, at, paid, fits] = [8 * 3600, 0, 0, true]
        const rest = () => {
          t = Math.max(t, pause.from)
          if (t > pause.to) fits = false
          t += pause.seconds
        }
        for (const [i, v] of visits.entries()) {
          if (i === edge) rest()
          const leg = drive[at * places + v.place]!
          const there =
            technician.outside && i === 0 && edge > 0
              ? Math.max(t, technician.outside.setsOff + leg)
              : t + leg
          t = Math.max(there, v.window?.from ?? 0)
          if (v.window && t > v.window.to) paid += 1_000_000 + 10 * (t - v.window.to)
          t += v.seconds
          at = v.place
        }
        // A day that is over before its pause has none.
        if (edge === count && t >= pause.from) rest()
        if (!technician.outside) t += drive[at * places]!
        if (fits) best = Math.min(best, paid + 10 * Math.max(0, t - 17 * 3600))
      }
      const hours = visits.reduce((sum, v) => sum + v.seconds, 0) / 3600
      expect(facts.total - facts.driving - 4 * hours * hours, `day ${n}`).toBeCloseTo(best, 4)
    }
  })
})
describe('instances that cannot be', () => {
  it.each([
    ['{', 'not JSON'],
    ['[]', 'one object'],
    ['{"technicians":[]}', 'technicians and visits'],
    ['{"technicians":[],"visits":[],"drive":[[0,1],[1]]}', 'not square'],
    [
      '{"technicians":[{"id":"t","start":3,"end":0,"shift":{"from":0,"to":1}}],"visits":[],"drive":[[0]]}',
      'place 3',
    ],
    [
      '{"technicians":[{"id":"t","start":0,"end":0,"shift":{"from":5,"to":1}}],"visits":[],"drive":[[0]]}',
      'ends before',
    ],
    [
      '{"technicians":[],"visits":[{"id":"a","place":0,"seconds":1},{"id":"a","place":0,"seconds":1}],"drive":[[0]]}',
      'same name',
    ],
  ])('%s', (text, says) => {
    expect(() => {
      const { instance } = readPlanInstance(text)
      planDays(instance, { random: () => 0.5 }).next()
    }).toThrow(says)
  })
  it('our own format: places become drive times, a plan comes along', () => {
    const { instance, given } = readPlanInstance(
      JSON.stringify({
        places: [
          { lat: 42, lon: -75 },
          { lat: 42.1, lon: -75 },
        ],
        technicians: [{ id: 't', start: 0, end: 0, shift: { from: 0, to: 36000 } }],
        visits: [{ id: 'a', place: 1, seconds: 600 }],
        plan: { routes: [{ technicianId: 't', visitIds: ['a'] }], unserved: [] },
      }),
    )
    expect(instance.drive[1]).toBeGreaterThan(600)
    expect(describePlan(instance, given!).unserved).toEqual([])
  })
})
