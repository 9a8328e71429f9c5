// What the first screen of a phone is drawn from on the server, for the app to go on from.
import type { Answer } from './api'

export interface Drawn {
  session: Answer<'session'>
  fieldDay: Answer<'fieldDay'>
  /** the last event that these answers can know of */
  lastEvent: number
}
