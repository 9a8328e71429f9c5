// An instance made ready for the search: indices and flat arrays instead of names, what may not be is worked out once.
import { LedgerError } from '../../errors/LedgerError'
import { PLAN_WEIGHTS, type Plan, type PlanInstance, type PlanWeights } from './instance'

export interface Problem {
  places: number
  drive: Float64Array
  weights: PlanWeights
  technicians: {
    id: string
    start: number
    end: number
    from: number
    to: number
    /** earliest that they set off, where drives lie outside the shift; NaN where they lie within */ setsOff: number
    overtimeMost: number
    breaks: { from: number; to: number; seconds: number }[]
    visitsMost: number
    loadMost: number
  }[]
  visits: {
    id: string
    place: number
    seconds: number
    from: number
    to: number
    hard: boolean
    promised: boolean
    load: number
    unserved: number
    locked: boolean
    crew: number
    allowed: Uint8Array
  }[]
  /** how many crews there are */
  crews: number
}
const refuse = (message: string): never => {
  throw new LedgerError('bad_instance', 422, message)
}

/**
 * Checks an instance and makes it ready.
 * @throws LedgerError `bad_instance` with a sentence: an unknown place, a negative time, the same name twice
 */
export function problemOf(instance: PlanInstance): Problem {
  const { places } = instance
  if (instance.drive.length !== places * places)
    refuse(
      `The matrix has ${instance.drive.length} entries; ${places} places need ${places * places}.`,
    )
  const drive = Float64Array.from(instance.drive)
  if (drive.some((d) => !(d >= 0))) refuse('A drive time is missing or negative.')
  const place = (p: number, who: string) =>
    Number.isInteger(p) && p >= 0 && p < places
      ? p
      : refuse(`${who} is at place ${p}, which is not in the matrix.`)
  const unique = (ids: string[], what: string) =>
    new Set(ids).size === ids.length || refuse(`Two ${what} have the same name.`)
  unique(
    instance.technicians.map((t) => t.id),
    'technicians',
  )
  unique(
    instance.visits.map((v) => v.id),
    'visits',
  )
  const crews = [...new Set(instance.visits.flatMap((v) => v.crew ?? []))]
  const weights = { ...PLAN_WEIGHTS, ...instance.weights }
  return {
    places,
    drive,
    weights,
    crews: crews.length,
    technicians: instance.technicians.map((t) => {
      if (!(t.shift.to >= t.shift.from)) refuse(`The shift of ${t.id} ends before it begins.`)
      return {
        id: t.id,
        start: place(t.start, t.id),
        end: t.end === null ? -1 : place(t.end, t.id),
        from: t.shift.from,
        to: t.shift.to,
        setsOff: t.outside ? t.outside.setsOff : NaN,
        overtimeMost: t.overtimeMost ?? 0,
        breaks: [...(t.breaks ?? [])].sort((a, b) => a.from - b.from),
        visitsMost: t.visitsMost ?? Infinity,
        loadMost: t.loadMost ?? Infinity,
      }
    }),
    visits: instance.visits.map((v) => {
      if (!(v.seconds >= 0)) refuse(`Visit ${v.id} has no length.`)
      if (v.crew !== undefined && v.window?.from !== v.window?.to)
        refuse(
          `The visits of crew ${v.crew} begin together: give ${v.id} a window that begins and ends at one moment.`,
        )
      if (v.crew !== undefined && !v.window)
        refuse(`The visits of crew ${v.crew} begin together: say when.`)
      if (v.window && !(v.window.to >= v.window.from))
        refuse(`The window of ${v.id} ends before it begins.`)
      return {
        id: v.id,
        place: place(v.place, v.id),
        seconds: v.seconds,
        from: v.window?.from ?? -Infinity,
        to: v.window?.to ?? Infinity,
        hard: v.crew !== undefined || (v.window?.hard ?? false),
        promised: v.window !== undefined,
        load: v.load ?? 0,
        unserved: weights.unserved * (v.priority ?? 1) + (v.window ? weights.broken : 0),
        locked: v.locked ?? false,
        crew: v.crew === undefined ? -1 : crews.indexOf(v.crew),
        allowed: Uint8Array.from(instance.technicians, (t) =>
          Number(
            (v.only?.includes(t.id) ?? true) &&
              (v.skills ?? []).every((s) => t.skills?.includes(s)),
          ),
        ),
      }
    }),
  }
}
/** A plan in indices; visits that it names nowhere are unserved, those that it names twice are refused. */
export function routesOf(problem: Problem, plan: Plan): number[][] {
  const at = new Map(problem.visits.map((v, i) => [v.id, i]))
  const seen = new Set<number>()
  const routes: number[][] = problem.technicians.map(() => [])
  for (const r of plan.routes) {
    const k = problem.technicians.findIndex((t) => t.id === r.technicianId)
    if (k < 0) refuse(`The plan sends ${r.technicianId}, who is not among the technicians.`)
    for (const id of r.visitIds) {
      const v = at.get(id) ?? refuse(`The plan has visit ${id}, which is not in the instance.`)
      if (seen.has(v)) refuse(`The plan has visit ${id} twice.`)
      seen.add(v)
      routes[k]!.push(v)
    }
  }
  return routes
}
export function planOf(problem: Problem, routes: readonly (readonly number[])[]): Plan {
  const served = new Set(routes.flat())
  return {
    routes: routes.map((r, k) => ({
      technicianId: problem.technicians[k]!.id,
      visitIds: r.map((v) => problem.visits[v]!.id),
    })),
    unserved: problem.visits.flatMap((v, i) => (served.has(i) ? [] : [v.id])),
  }
}
