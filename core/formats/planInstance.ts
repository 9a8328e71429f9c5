// Instances of the planner as files: our own format, and the tables of Solomon's test problems as JSON.
import { LedgerError } from '../errors/LedgerError'
import { driveSeconds } from '../dispatch/driveSeconds'
import type {
  Plan,
  PlanInstance,
  PlanTechnician,
  PlanVisit,
  PlanWeights,
} from '../dispatch/plan/instance'

export interface ReadInstance {
  instance: PlanInstance
  given?: Plan
  /** what a unit of the matrix is divided by when it is told */ scale: number
}
const refuse = (message: string): never => {
  throw new LedgerError('bad_instance', message)
}
type Own = {
  format?: string
  places?: { lat: number; lon: number }[] | number
  drive?: number[][]
  technicians?: PlanTechnician[]
  visits?: PlanVisit[]
  weights?: Partial<PlanWeights>
  plan?: Plan
}
type Solomon = { capacity: number; columns: string[]; rows: number[][]; vehicles?: number }

/**
 * Reads an instance, as docs/formats.md describes it. Solomon's problems have hard windows, one capacity, one depot, and count only
 * the distance: the euclidean one, truncated to one decimal, so that it is kept here in whole tenths (`scale` 10).
 * @throws LedgerError `bad_instance` with a sentence
 */
export function readPlanInstance(text: string): ReadInstance {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return refuse('This file is not JSON.')
  }
  if (data === null || typeof data !== 'object' || Array.isArray(data))
    return refuse('The file should hold one object.')
  if ('rows' in data) return solomon(data as Solomon)
  const own = data as Own
  if (!Array.isArray(own.technicians) || !Array.isArray(own.visits))
    return refuse('The instance needs technicians and visits.')
  const matrix =
    own.drive ??
    (Array.isArray(own.places)
      ? own.places.map((a) =>
          (own.places as { lat: number; lon: number }[]).map((b) => driveSeconds(a, b)),
        )
      : refuse('The instance needs places with lat and lon, or a matrix.'))
  if (matrix.some((row) => !Array.isArray(row) || row.length !== matrix.length))
    return refuse('The matrix is not square.')
  return {
    instance: {
      technicians: own.technicians,
      visits: own.visits,
      places: matrix.length,
      drive: matrix.flat(),
      weights: own.weights,
    },
    given: own.plan,
    scale: 1,
  }
}
function solomon(s: Solomon): ReadInstance {
  if (!Array.isArray(s.columns) || !Array.isArray(s.rows) || s.rows.length === 0)
    return refuse('The table has no rows.')
  const at = (name: string) =>
    s.columns.includes(name) ? s.columns.indexOf(name) : refuse(`The table has no column ${name}.`)
  const [id, x, y, demand, ready, due, service] = [
    'id',
    'x',
    'y',
    'demand',
    'ready',
    'due',
    'service',
  ].map(at) as [number, number, number, number, number, number, number]
  const n = s.rows.length
  // Truncated with a hair added, as the published optima were computed.
  const tenths = (a: number[], b: number[]) =>
    Math.floor(10 * Math.hypot(a[x]! - b[x]!, a[y]! - b[y]!) + 1e-9)
  const depot = s.rows[0]!
  const shift = { from: depot[ready]! * 10, to: depot[due]! * 10 }
  return {
    scale: 10,
    instance: {
      places: n,
      drive: s.rows.flatMap((a) => s.rows.map((b) => tenths(a, b))),
      technicians: Array.from({ length: s.vehicles ?? n - 1 }, (_, i) => ({
        id: `vehicle ${i + 1}`,
        start: 0,
        end: 0,
        shift,
        loadMost: s.capacity,
      })),
      visits: s.rows.slice(1).map((r, i) => ({
        id: String(r[id]),
        place: i + 1,
        seconds: r[service]! * 10,
        load: r[demand]!,
        window: { from: r[ready]! * 10, to: r[due]! * 10, hard: true },
      })),
      weights: { overtime: 0, evenness: 0, unserved: 1e7, broken: 0, late: 0 },
    },
  }
}
