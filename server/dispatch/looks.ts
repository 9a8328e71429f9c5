// Filters of the schedule that a person keeps by name.
import { conflict, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { scheduleFilter } from '../../shared/dispatch'
import { signedIn, type Ctx } from '../http/context'
import { looksOf, putLook, removeLook } from './queries'

export const looks = async (ctx: Ctx): Promise<Answer<'looks'>> => ({
  items: (await looksOf(ctx.tx, signedIn(ctx).id)).map((l) => ({
    id: l.id,
    name: l.name,
    filter: scheduleFilter.cast(l.filter) as Answer<'looks'>['items'][number]['filter'],
  })),
})
/** One name is one look: keeping it again changes what it shows. */
export async function keepLook(ctx: Ctx, body: Body<'keepLook'>): Promise<Answer<'looks'>> {
  if ((await looks(ctx)).items.filter((l) => l.name !== body.name).length >= 30)
    throw conflict('too_many', 'Thirty looks are kept; take one away first.')
  await putLook(ctx.tx, {
    id: body.id,
    personId: signedIn(ctx).id,
    name: body.name,
    filter: body.filter,
  })
  return looks(ctx)
}
export async function dropLook(ctx: Ctx, id: string): Promise<Answer<'looks'>> {
  if (!(await removeLook(ctx.tx, id, signedIn(ctx).id))) throw notFound('look')
  return looks(ctx)
}
