/** A stretch of time; any unit and origin, as long as the whole instance uses one (the app: seconds of the epoch). */
export interface Span {
  from: number
  to: number
}

/** One technician on one day. A plan over several days has one of these for each day of each technician. */
export interface PlanTechnician {
  id: string
  /** indices into the matrix; without an end the day ends at the last visit */
  start: number
  end: number | null
  shift: Span
  /**
   * the drive to the first visit and the one home lie outside the shift, which begins and ends with work; nobody sets off
   * before `setsOff`. Left out: drives are within the shift
   */
  outside?: { setsOff: number } | undefined
  /** how long past the shift a day may run; it costs `overtime` for each unit. Left out: not at all */
  overtimeMost?: number
  /** a pause that begins within its span and lasts that long; taken at a visit's edge, never inside one */
  breaks?: readonly (Span & { seconds: number })[]
  skills?: readonly string[]
  visitsMost?: number
  /** how much load fits (hours, kilograms: whatever `load` of the visits counts) */
  loadMost?: number
}
export interface PlanVisit {
  id: string
  place: number
  seconds: number
  /** within which the work begins. A soft window may be missed, at the cost of a broken promise */
  window?: (Span & { hard?: boolean }) | undefined
  skills?: readonly string[]
  load?: number
  /** how much leaving it out costs, as a multiple; 1 when not said */
  priority?: number
  /** only these technicians may go; left out: everybody with the skills */
  only?: readonly string[]
  /** stays where the given plan has it */
  locked?: boolean
  /** visits of the same crew are one visit of several technicians: different people, each with its window on the same start */
  crew?: string
}
/**
 * What a plan costs: broken promises ≫ unserved ≫ overtime ≫ driving, then evenness. A promised visit that is left out is
 * both unserved and broken.
 */
export interface PlanWeights {
  broken: number
  /** for each unit of time by which a promise is missed */
  late: number
  unserved: number
  overtime: number
  /** for each unit of the matrix */
  driving: number
  /** for each squared hour of work of a technician: the same work, spread, costs less */
  evenness: number
}
export const PLAN_WEIGHTS: PlanWeights = {
  broken: 1_000_000,
  late: 10,
  unserved: 200_000,
  overtime: 10,
  driving: 1,
  evenness: 4,
}

export interface PlanInstance {
  technicians: readonly PlanTechnician[]
  visits: readonly PlanVisit[]
  /** drive times between places, row by row: `drive[from * places + to]` */
  places: number
  drive: ArrayLike<number>
  weights?: Partial<PlanWeights>
}
/** Visit identifiers by technician, in the order in which they are driven; the rest is unserved. */
export interface Plan {
  routes: { technicianId: string; visitIds: string[] }[]
  unserved: string[]
}
