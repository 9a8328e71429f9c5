// How changes of the set-up are put back: each subject says it of what it keeps itself.
import type { Permission } from '../../core/access/permissions'
import { conflict } from '../../core/errors/LedgerError'
import { alike } from './asShown'
import type { Ctx } from '../http/context'
import type { Change } from '../http/facts'

export interface Undo {
  /** who may change it may put it back */
  may: Permission
  back: (ctx: Ctx, data: never) => Promise<unknown>
  /** whether enough was kept of this entry; of some, less was kept at first */
  fits?: (data: Kept) => boolean
}
interface Kept {
  id?: string
  changes?: Readonly<Record<string, Change>>
}
const UNDOES = new Map<string, Undo>()
/** What puts back the entries of these codes. */
export function undoes(all: Readonly<Record<string, Undo>>): void {
  for (const [code, undo] of Object.entries(all)) UNDOES.set(code, undo)
}
/** It is one of several, and there was nothing before a new one. */
export const stoodBefore = ({ id, changes = {} }: Kept): boolean =>
  Boolean(id) && Object.values(changes).some(({ from }) => from)
/** It is one of several, and a new one can be taken out again. */
export const isKnown = ({ id, changes }: Kept): boolean => Boolean(id && changes)
/** What puts an entry back; none where what was said of it then is less than is needed. */
export function undoOf(code: string, data: object | null): Undo | null {
  const undo = UNDOES.get(code)
  if (!undo || !data || !Object.keys(data).length) return null
  return undo.fits && !undo.fits(data) ? null : undo
}
/** Only what still is as it was left is put back: what was set up since is somebody’s wish, too. */
export function refuseChanged(now: unknown, left: unknown): void {
  if (!alike(now, left))
    throw conflict('stale', 'This was set up otherwise since. Look at what stands there now.')
}
