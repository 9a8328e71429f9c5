// The proven optimum of a small planning problem, by a general solver of mixed-integer programmes. It shares nothing with the planner.
import type { PlanInstance } from '../../../core/dispatch/plan/instance'

interface Solver {
  solve(model: string): { Status: string; ObjectiveValue: number }
}
/**
 * Three-index model: x(k,i,j) technician k drives from i to j; t(i) the start at visit i. All visits are made, windows are hard, only
 * driving is paid. Big M per arc is as tight as the windows allow; arcs that cannot be in time do not exist.
 */
export function optimum(instance: PlanInstance, solver: Solver): number {
  const { technicians, visits, places } = instance
  const d = (a: number, b: number) => instance.drive[a * places + b]!
  const span = (i: number) => visits[i]!.window ?? { from: 0, to: 86_400 }
  const arcs: { k: number; from: string; to: string; cost: number }[] = []
  const timed: string[] = []
  const name = (k: number, a: string, b: string) => `x_${k}_${a}_${b}`
  for (const [k, t] of technicians.entries()) {
    const can = visits.flatMap((v, i) =>
      (v.skills ?? []).every((s) => t.skills!.includes(s)) ? [i] : [],
    )
    const earliest = (i: number) =>
      Math.max(span(i).from, t.shift.from + d(t.start, visits[i]!.place))
    const latest = (i: number) =>
      Math.min(span(i).to, t.shift.to - visits[i]!.seconds - d(visits[i]!.place, t.end!))
    for (const i of can) {
      if (earliest(i) > latest(i)) continue
      arcs.push(
        { k, from: 's', to: `${i}`, cost: d(t.start, visits[i]!.place) },
        { k, from: `${i}`, to: 'e', cost: d(visits[i]!.place, t.end!) },
      )
      timed.push(
        ` t_${i} - ${earliest(i)} ${name(k, 's', `${i}`)} >= 0`,
        ` t_${i} + ${86_400 - latest(i)} ${name(k, `${i}`, 'e')} <= 86400`,
      )
      for (const j of can) {
        if (i === j || earliest(j) > latest(j)) continue
        const gap = visits[i]!.seconds + d(visits[i]!.place, visits[j]!.place)
        if (earliest(i) + gap > latest(j)) continue
        arcs.push({ k, from: `${i}`, to: `${j}`, cost: d(visits[i]!.place, visits[j]!.place) })
        const M = Math.max(0, span(i).to + gap - span(j).from)
        timed.push(` t_${j} - t_${i} - ${gap + (M - gap)} ${name(k, `${i}`, `${j}`)} >= ${gap - M}`)
      }
    }
  }
  const of = (f: (a: (typeof arcs)[number]) => boolean, sign = '+') =>
    arcs
      .filter(f)
      .map((a) => `${sign} ${name(a.k, a.from, a.to)}`)
      .join(' ')
  const rules: string[] = []
  visits.forEach((_, i) => {
    rules.push(` ${of((a) => a.to === `${i}`)} = 1`)
    technicians.forEach((_, k) => {
      const into = of((a) => a.k === k && a.to === `${i}`)
      if (into) rules.push(` ${into} ${of((a) => a.k === k && a.from === `${i}`, '-')} = 0`)
    })
  })
  technicians.forEach((_, k) => {
    const out = of((a) => a.k === k && a.from === 's')
    if (out) rules.push(` ${out} <= 1`)
  })
  const model = [
    'Minimize',
    ` obj: ${arcs
      .filter((a) => a.cost)
      .map((a) => `+ ${a.cost} ${name(a.k, a.from, a.to)}`)
      .join(' ')}`,
    'Subject To',
    ...[...rules, ...timed].map((r, i) => ` c${i}:${r}`),
    'Bounds',
    ...visits.map((_, i) => ` ${span(i).from} <= t_${i} <= ${span(i).to}`),
    'Binary',
    ` ${arcs.map((a) => name(a.k, a.from, a.to)).join(' ')}`,
    'End',
  ].join('\n')
  const { Status, ObjectiveValue } = solver.solve(model)
  if (Status !== 'Optimal') throw new Error(`not proven: ${Status}`)
  return ObjectiveValue
}
