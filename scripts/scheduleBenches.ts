// Benchmarks of the schedule: openings, the planner, roads, and how soon others see an act.
import highs from 'highs'
import mysql from 'mysql2/promise'
import { v7 } from 'uuid'
import { driveSeconds } from '../core/dispatch/driveSeconds'
import { planDays } from '../core/dispatch/plan/planDays'
import type { PlanInstance } from '../core/dispatch/plan/instance'
import { readRoads } from '../core/dispatch/roads/readRoads'
import { roadMatrix } from '../core/dispatch/roads/roadSeconds'
import { seeded } from '../core/random/seeded'
import { plusDays, weekday } from '../core/time/zone'
import { planProblem } from '../demo/planProblems'
import { optimum } from '../tests/core/plan/optimum'
import { cookieOf, inPieces, round, tell, type Bench } from './lib/tell'

/** The best cost that the planner comes to in that many seconds. */
function plannedIn(
  instance: PlanInstance,
  seconds: number,
  seed: number,
): { cost: number; tries: number } {
  const search = planDays(instance, { random: seeded(seed), every: 50 })
  const from = performance.now()
  let report = search.next()
  while (!report.done) report = search.next((performance.now() - from) / 1000 / seconds)
  return report.value
}
export const scheduleBenches: Record<string, Bench> = {
  'day-plan': {
    rig: false,
    async run() {
      const instance = planProblem(104, 12, 80, false)
      const short = Array.from({ length: 5 }, (_, i) => plannedIn(instance, 5, i + 1))
      const long = plannedIn(instance, 60, 99)
      const best = Math.min(long.cost, ...short.map((s) => s.cost))
      tell({
        name: 'day-plan',
        unit: 'cost',
        what: `12 technicians, 80 visits with promises, skills, breaks and homes: 5 s (about ${short[0]!.tries} tries) against the best of a 60 s run (${round(long.cost)}); the ratio is that of the median run`,
        values: short.map((s) => s.cost),
        reference: best,
        ofMedian: true,
      })
    },
  },
  'day-plan-optimum': {
    rig: false,
    async run() {
      const solver = await (highs as unknown as () => Promise<Parameters<typeof optimum>[1]>)()
      const ratios: number[] = []
      for (let seed = 1; ratios.length < 40; seed++) {
        const instance = planProblem(seed, 3, 8, true)
        let proven: number
        try {
          proven = optimum(instance, solver)
        } catch {
          continue /* no plan serves everybody: nothing to compare with */
        }
        const search = planDays(instance, { random: seeded(seed), every: 100 })
        let report = search.next()
        while (!report.done) report = search.next(report.value.tries / 2500)
        ratios.push(report.value.cost / proven)
      }
      tell({
        name: 'day-plan-optimum',
        unit: 'cost ÷ optimum',
        what: `40 days of 3 technicians and 8 visits with skills, homes and windows against the optimum that highs proves; worst ${round(Math.max(...ratios))}; the ratio is the mean`,
        values: [ratios.reduce((a, b) => a + b, 0) / ratios.length],
        reference: 1,
      })
    },
  },
  'drive-matrix': {
    rig: false,
    async run() {
      const side = 141
      const line = (coordinates: number[][], speed: number) => ({
        type: 'Feature',
        properties: { speed },
        geometry: { type: 'LineString', coordinates },
      })
      const across = Array.from({ length: side }, (_, i) =>
        line(
          Array.from({ length: side }, (_, j) => [-75 + j * 0.004, 42 + i * 0.003]),
          i % 5 ? 50 : 90,
        ),
      )
      const along = Array.from({ length: side }, (_, i) =>
        line(
          Array.from({ length: side }, (_, j) => [-75 + i * 0.004, 42 + j * 0.003]),
          60,
        ),
      )
      const roads = readRoads({ type: 'FeatureCollection', features: [...across, ...along] })
      const random = seeded(3)
      const places = Array.from({ length: 100 }, () => ({
        lat: 42 + random() * 0.42,
        lon: -75 + random() * 0.56,
      }))
      const times = Array.from({ length: 5 }, () => {
        const from = performance.now()
        roadMatrix(roads, places, driveSeconds)
        return (performance.now() - from) / 1000
      })
      tell({
        name: 'drive-matrix',
        unit: 's',
        what: `100 × 100 drives on a network of ${roads.lat.length} positions`,
        values: times,
        reference: 1.5,
      })
    },
  },
  openings: {
    rig: true,
    async run(rig) {
      const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
      const random = seeded(8)
      const [sites] = (await db.query(
        'SELECT s.id, s.customer_id AS customerId FROM sites s WHERE s.lat IS NOT NULL LIMIT 400',
      )) as unknown as [{ id: string; customerId: string }[]]
      const week = JSON.stringify(
        Object.fromEntries(
          [1, 2, 3, 4, 5, 6, 7].map((d) => [
            d,
            { from: '08:00', to: '17:00', morning: 3, afternoon: 3 },
          ]),
        ),
      )
      const people = Array.from({ length: 30 }, () => v7())
      await db.query('UPDATE people SET bookable = FALSE')
      await db.query(
        `INSERT INTO people (id, email, name, role, bookable, skills, hours, territory_ids, lat,
          lon, password_hash)
        VALUES ?`,
        [
          people.map((id, i) => [
            id,
            `bench${i}@demo.test`,
            `Technician ${i}`,
            'technician',
            1,
            '[]',
            week,
            '[]',
            42.64 + random() * 0.24,
            -75.25 + random() * 0.2,
            'x',
          ]),
        ],
      )
      const work: unknown[][] = []
      const visits: unknown[][] = []
      let n = 0
      for (let day = 0; day < 14; day++) {
        const date = plusDays('2026-11-25', day)
        if (weekday(date) > 7) continue
        for (const person of people) {
          for (let slot = 0; slot < 4 && n < 1500; slot++) {
            if (random() > 0.92) continue
            const site = sites[Math.floor(random() * sites.length)]!
            const id = v7()
            work.push([
              id,
              `B-${n++}`,
              site.customerId,
              site.id,
              'Bench',
              'Bench',
              '{}',
              'USD',
              'scheduled',
              '2026-11-20',
            ])
            visits.push([
              v7(),
              id,
              person,
              `${date} ${String(13 + slot * 2).padStart(2, '0')}:15:00`,
              3600,
              date,
              `${String(8 + slot * 2).padStart(2, '0')}:00`,
              `${String(10 + slot * 2).padStart(2, '0')}:00`,
              '',
            ])
          }
        }
      }
      await inPieces(work, 500, (some) =>
        db.query(
          `INSERT INTO work_orders (id, number, customer_id, site_id, title, problem, contact,
            currency, state, created_at)
          VALUES ?`,
          [some],
        ),
      )
      await inPieces(visits, 500, (some) =>
        db.query(
          `INSERT INTO visits (id, work_order_id, technician_id, start_at, duration_seconds,
            promise_date, promise_from, promise_to, findings)
          VALUES ?`,
          [some],
        ),
      )
      await db.end()
      const cookie = await cookieOf(rig, 'office@demo.test')
      const times: number[] = []
      let found = 0
      for (let i = 0; i < 130; i++) {
        const site = sites[Math.floor(random() * sites.length)]!
        const from = performance.now()
        const reply = await fetch(`${rig.env.TEST_URL}/api/v1/openings`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', cookie },
          body: JSON.stringify({
            siteId: site.id,
            customerId: site.customerId,
            durationSeconds: 3600,
            days: 14,
          }),
        })
        const answer = (await reply.json()) as { total: number; detail?: string }
        if (!reply.ok) throw new Error(answer.detail)
        // The first ones find the drives that are kept afterwards.
        if (i >= 30) times.push(performance.now() - from)
        found += answer.total
      }
      tell({
        name: 'openings',
        unit: 'ms',
        what: `over HTTP: 30 technicians, 14 days, ${n} booked visits; ${Math.round(found / 130)} openings ranked each time`,
        values: times,
        reference: 150,
      })
    },
  },
}
