// Filters of the schedule that a person keeps by name.
import { conflict, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { scheduleFilter } from '../../shared/dispatch'
import { signedIn, type Ctx } from '../http/context'
import { savedFiltersOf, putSavedFilter, deleteSavedFilter } from './setUp.queries'

export const savedFilters = async (ctx: Ctx): Promise<Answer<'savedFilters'>> => ({
  items: (await savedFiltersOf(ctx.tx, signedIn(ctx).id)).map((l) => ({
    id: l.id,
    name: l.name,
    filter: scheduleFilter.cast(l.filter) as Answer<'savedFilters'>['items'][number]['filter'],
  })),
})
/** One name is one filter: keeping it again changes what it shows. */
export async function saveFilter(
  ctx: Ctx,
  body: Body<'saveFilter'>,
): Promise<Answer<'savedFilters'>> {
  if ((await savedFilters(ctx)).items.filter((l) => l.name !== body.name).length >= 30)
    throw conflict('too_many', 'Thirty filters are kept; take one away first.')
  await putSavedFilter(ctx.tx, {
    id: body.id,
    personId: signedIn(ctx).id,
    name: body.name,
    filter: body.filter,
  })
  return savedFilters(ctx)
}
export async function removeSavedFilter(ctx: Ctx, id: string): Promise<Answer<'savedFilters'>> {
  if (!(await deleteSavedFilter(ctx.tx, id, signedIn(ctx).id))) throw notFound('filter')
  return savedFilters(ctx)
}
