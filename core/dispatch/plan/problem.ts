// An instance made ready for the search: indices and flat arrays instead of names, what may not be is worked out once.
import { LedgerError } from '../../errors/LedgerError'
import {
  PLAN_WEIGHTS,
  type Plan,
  type PlanInstance,
  type PlanTechnician,
  type PlanVisit,
  type PlanWeights,
} from './instance'

export interface ProblemTechnician {
  id: string
  start: number
  end: number
  from: number
  to: number
  /** earliest that they set off, where drives lie outside the shift; NaN where they lie within */
  setsOff: number
  overtimeMost: number
  breaks: { from: number; to: number; seconds: number }[]
  visitsMost: number
  loadMost: number
}
export interface ProblemVisit {
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
}
export interface Problem {
  places: number
  drive: Float64Array
  weights: PlanWeights
  technicians: ProblemTechnician[]
  visits: ProblemVisit[]
  /** how many crews there are */
  crews: number
}
const refuse = (message: string): never => {
  throw new LedgerError('bad_instance', message)
}

function checkMatrix({ drive, places }: PlanInstance): void {
  const whole = places * places
  if (drive.length !== whole)
    refuse(`The matrix has ${drive.length} entries; ${places} places need ${whole}.`)
  if (Array.from(drive).some((d) => !(d >= 0))) refuse('A drive time is missing or negative.')
}
function checkNames(ids: readonly string[], what: string): void {
  if (new Set(ids).size !== ids.length) refuse(`Two ${what} have the same name.`)
}
function checkVisit({ id, seconds, window, crew }: PlanVisit): void {
  if (!(seconds >= 0)) refuse(`Visit ${id} has no length.`)
  if (crew !== undefined && !window) refuse(`The visits of crew ${crew} begin together: say when.`)
  if (crew !== undefined && window!.from !== window!.to)
    refuse(
      `The visits of crew ${crew} begin together: give ${id} a window that begins and ends at one moment.`,
    )
  if (window && !(window.to >= window.from)) refuse(`The window of ${id} ends before it begins.`)
}
type PlaceIn = (place: number, who: string) => number
function technicianOf(t: PlanTechnician, placeIn: PlaceIn): ProblemTechnician {
  if (!(t.shift.to >= t.shift.from)) refuse(`The shift of ${t.id} ends before it begins.`)
  return {
    id: t.id,
    start: placeIn(t.start, t.id),
    end: t.end === null ? -1 : placeIn(t.end, t.id),
    from: t.shift.from,
    to: t.shift.to,
    setsOff: t.outside ? t.outside.setsOff : NaN,
    overtimeMost: t.overtimeMost ?? 0,
    breaks: [...(t.breaks ?? [])].sort((a, b) => a.from - b.from),
    visitsMost: t.visitsMost ?? Infinity,
    loadMost: t.loadMost ?? Infinity,
  }
}
const mayGo = (v: PlanVisit, t: PlanTechnician): boolean =>
  (v.only?.includes(t.id) ?? true) && (v.skills ?? []).every((s) => t.skills?.includes(s))
const windowOf = ({ window, crew }: PlanVisit) => ({
  from: window?.from ?? -Infinity,
  to: window?.to ?? Infinity,
  hard: crew !== undefined || (window?.hard ?? false),
  promised: window !== undefined,
})
/**
 * Checks an instance and makes it ready.
 * @throws LedgerError `bad_instance` with a sentence: an unknown place, a negative time, the same name twice
 */
export function problemOf(instance: PlanInstance): Problem {
  const { places, technicians, visits } = instance
  checkMatrix(instance)
  const placeIn: PlaceIn = (place, who) =>
    Number.isInteger(place) && place >= 0 && place < places
      ? place
      : refuse(`${who} is at place ${place}, which is not in the matrix.`)
  checkNames(
    technicians.map((t) => t.id),
    'technicians',
  )
  checkNames(
    visits.map((v) => v.id),
    'visits',
  )
  const crews = [...new Set(visits.flatMap((v) => v.crew ?? []))]
  const weights = { ...PLAN_WEIGHTS, ...instance.weights }
  const visitOf = (v: PlanVisit): ProblemVisit => {
    checkVisit(v)
    return {
      id: v.id,
      place: placeIn(v.place, v.id),
      seconds: v.seconds,
      ...windowOf(v),
      load: v.load ?? 0,
      unserved: weights.unserved * (v.priority ?? 1) + (v.window ? weights.broken : 0),
      locked: v.locked ?? false,
      crew: v.crew === undefined ? -1 : crews.indexOf(v.crew),
      allowed: Uint8Array.from(technicians, (t) => Number(mayGo(v, t))),
    }
  }
  return {
    places,
    drive: Float64Array.from(instance.drive),
    weights,
    crews: crews.length,
    technicians: technicians.map((t) => technicianOf(t, placeIn)),
    visits: visits.map(visitOf),
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
