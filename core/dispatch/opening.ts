// What the search for openings is asked with, and what it finds.
import type { Place } from './greatCircle'
import type { Span } from './plan/instance'

export interface OpeningStop {
  id: string
  /** who is visited, for the reasons */
  label: string
  startAt: number
  durationSeconds: number
  place: Place | null
  /** the end of the promised window; null where nothing was promised */
  promiseTo: number | null
  /** has begun, or may not be moved */
  fixed: boolean
}
/** One technician on one day, all times in epoch milliseconds. */
export interface OpeningDay {
  technicianId: string
  name: string
  date: string
  working: readonly Span[]
  noon: number
  /**
   * time off, entries that are not visits, times that other calls hold: nothing goes there. A rest is taken wherever somebody
   * is, so that the drive may lie around it; whoever was anywhere else drives after it
   */
  blocked: readonly (Span & { rest?: boolean })[]
  start: Place | null
  end: Place | null
  /** the drive to the first visit and the one home lie outside the hours */
  drivesOutside?: boolean
  stops: readonly OpeningStop[]
  skills: readonly string[]
  /** territories served; none means all */
  serves: readonly string[]
  capacity: { morning: number; afternoon: number }
  taken: { morning: number; afternoon: number }
}
export interface OpeningWish {
  durationSeconds: number
  place: Place | null
  skills: readonly string[]
  territory: string
  /** nothing begins earlier, and nobody sets off earlier */
  after: number
  part: 'any' | 'morning' | 'afternoon'
  /** the arrival must lie within; epoch ms */
  window?: Span
  /** technicians whom the customer knows */
  known: readonly string[]
  /** whether visits that are booked may begin later for it, within their promise */
  mayMove?: boolean
}
export interface Opening {
  technicianId: string
  date: string
  startAt: number
  extraDriveSeconds: number
  /** the drive to this visit */
  driveSeconds: number
  /** when the technician is home then */
  dayEndAt: number
  overtimeSeconds: number
  /** visits that begin later because of it, all still within their promise */
  moved: { id: string; label: string; startAt: number }[]
  overCapacity: boolean
  lacks: string[]
  foreign: boolean
  known: boolean
  /** what decides the rank, in seconds; less is better */
  score: number
  reasons: OpeningReason[]
}
/** What is said of an opening; by its code a screen knows what it shows elsewhere already. */
export interface OpeningReason {
  code: 'driving' | 'home' | 'moved' | 'tight' | 'known' | 'capacity' | 'skill' | 'territory'
  text: string
}
