// What a call, a quote or work is about is at its site.
import { invalid } from '../../core/errors/LedgerError'
import type { Ctx } from '../http/context'
import { suppliedById } from './history.queries'
import { equipmentById } from './places.queries'

/** @throws `invalid` at the field whose thing is somewhere else, or nowhere */
export async function mustBeThere(
  ctx: Ctx,
  about: { equipmentId: string | null; suppliedLineId: string | null },
  siteId: string,
): Promise<void> {
  const { equipmentId, suppliedLineId } = about
  const thing = equipmentId ? await equipmentById(ctx.tx, equipmentId) : null
  if (equipmentId && thing?.siteId !== siteId)
    throw invalid('equipmentId', 'This equipment is not at this site.')
  const supplied = suppliedLineId ? await suppliedById(ctx.tx, suppliedLineId) : null
  if (suppliedLineId && supplied?.siteId !== siteId)
    throw invalid('suppliedLineId', 'This was not supplied to this site.')
}
