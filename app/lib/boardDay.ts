// What the board and its rows share: the stretch of time, what stands in a row, and the placement that is being tried.
import type { InjectionKey, Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import type { Place } from '~/stores/board'

/** From when to when the board runs, in epoch milliseconds. */
export interface Frame {
  from: number
  span: number
}
export interface Lane {
  visits: Answer<'placeVisit'>[]
  helps: Answer<'placeVisit'>[]
  held: Answer<'schedule'>['held']
}
/** A placement that is being tried, by hand or by keyboard, before it is saved. */
export interface Trying {
  visit: Answer<'placeVisit'>
  place: Place
  warnings: string[]
}
export const TRYING: InjectionKey<Ref<Trying | null>> = Symbol('trying')
