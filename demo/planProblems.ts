// Invented planning problems for tests and benches: seeded, with skills, homes and windows; only the driving is paid for.
import type { PlanInstance, PlanTechnician, PlanVisit } from '../core/dispatch/plan/instance'
import { seeded } from '../core/random/seeded'

const SKILLS = ['pumps', 'treatment', 'electric']
/** A day of that size on a plane of 60 by 60 minutes. Windows are hard when `hard`, promises otherwise. */
export function planProblem(
  seed: number,
  technicians: number,
  visits: number,
  hard: boolean,
): PlanInstance {
  const random = seeded(seed)
  const between = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const spots = Array.from({ length: technicians + visits }, () => ({
    x: random() * 60,
    y: random() * 60,
  }))
  // Whole minutes, rounded up, so that going round is never shorter than going straight.
  const drive = spots.flatMap((a) =>
    spots.map((b) => Math.ceil(Math.hypot(a.x - b.x, a.y - b.y)) * 60),
  )
  const people = Array.from({ length: technicians }, (_, k): PlanTechnician => ({
    id: `t${k}`,
    start: k,
    end: k,
    shift: { from: 8 * 3600, to: (hard ? 20 : 17) * 3600 },
    skills: SKILLS.filter((_, i) => i === k % 3 || random() < 0.5),
    ...(hard
      ? {}
      : {
          overtimeMost: 3 * 3600,
          breaks: [{ from: 11.5 * 3600, to: 13.5 * 3600, seconds: 1800 }],
        }),
  }))
  const work = Array.from({ length: visits }, (_, i): PlanVisit => {
    const from = between(8, 14) * 3600
    return {
      id: `v${i}`,
      place: technicians + i,
      seconds: between(2, hard ? 5 : 4) * 900,
      skills: random() < 0.5 ? [SKILLS[between(0, 2)]!] : [],
      ...(random() < 0.7 ? { window: { from, to: from + between(2, 4) * 3600, hard } } : {}),
    }
  })
  return {
    technicians: people,
    visits: work,
    places: spots.length,
    drive,
    ...(hard ? { weights: { evenness: 0, overtime: 0, unserved: 1e7, broken: 0, late: 0 } } : {}),
  }
}
