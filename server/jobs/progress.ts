// How far long work is. It is told on a connection of its own, since what the work writes is seen only
// at its end; and in the database, so that whichever process is asked knows it.
import { inBackground, sqlInstant, type Tx } from '../db/pool'
import { deleteProgress, progressOf, putProgress } from './progress.queries'

export interface Progress {
  what: string
  done: number
  of: number
}
const TELL_EVERY_MS = 200
const lastTold = new Map<string, number>()

/** Tells how far it is; now and then is enough. */
export function tellProgress(id: string, progress: Progress): void {
  const now = Date.now()
  if (now - (lastTold.get(id) ?? 0) < TELL_EVERY_MS && progress.done > 0) return
  lastTold.set(id, now)
  void inBackground((tx) => putProgress(tx, id, progress, sqlInstant(now))).catch(() => {})
}
export function endProgress(id: string): void {
  lastTold.delete(id)
  void inBackground((tx) => deleteProgress(tx, id)).catch(() => {})
}
export const progressNow = async (tx: Tx, id: string): Promise<Progress> =>
  (await progressOf(tx, id)) ?? { what: '', done: 0, of: 0 }
