// What is promised of a visit, as it is chosen and said.
import { sayPromise, type VisitPromise } from '~~/core/visits/visitPromise'
import type { Problem } from '~/lib/api'

/** A promise that a place breaks, and what could be promised instead. */
export interface PromiseAsked {
  promise: VisitPromise
  proposed: VisitPromise
}
/** What is to become of it; left out, it is kept. */
export interface PromiseAnswer {
  promise?: VisitPromise | null
  known?: boolean
}
/** What the server would rather not do, before somebody says that it is done all the same. */
export interface Refused {
  text: string
  asked: PromiseAsked | null
}
/** What was refused, where it is something to be asked about. */
export function refusedBy(error: unknown): Refused | null {
  const { code, message, extra } = error as Problem
  if (code !== 'placement_warning') return null
  return { text: message, asked: (extra?.asked as PromiseAsked | null | undefined) ?? null }
}
/** @param day how a date is said */
export const promiseSaid = (promise: VisitPromise | null, day: (date: string) => string) =>
  promise ? sayPromise(promise, day) : 'nothing yet'
