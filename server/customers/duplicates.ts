// Pairs of customers that may be one, and pairs that are not.
import { customerFacts } from './facts'
import { notFound } from '../../core/errors/LedgerError'
import { duplicatePairs } from '../../core/customers/likeness'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { matchDocs } from './matching'
import { customerById } from './queries'
import { apartPairs, sayApart } from './matching.queries'
import { sides } from './mergePreview'

export async function sweepDuplicates(ctx: Ctx): Promise<Answer<'duplicates'>> {
  const apart = new Set((await apartPairs(ctx.tx)).map((p) => `${p.firstId} ${p.secondId}`))
  const pairs = duplicatePairs(await matchDocs(ctx, null))
    .filter((p) => !apart.has(`${p.first} ${p.second}`))
    .slice(0, 50)
  const all = await sides(ctx, [...new Set(pairs.flatMap((p) => [p.first, p.second]))])
  return {
    items: pairs.map((p) => ({
      first: all.get(p.first)!,
      second: all.get(p.second)!,
      score: p.score,
      reasons: p.reasons,
    })),
  }
}
export async function notTheSame(
  ctx: Ctx,
  id: string,
  otherId: string,
): Promise<Answer<'notDuplicates'>> {
  const [a, b] = [await customerById(ctx.tx, id), await customerById(ctx.tx, otherId)]
  if (!a || !b || id === otherId) throw notFound('other customer')
  await sayApart(ctx.tx, [id, otherId], signedIn(ctx).id, ctx.now)
  await record(ctx, {
    subject: 'customer',
    id,
    customerId: id,
    fact: customerFacts.toldApart({ name: b.name }),
  })
  return { ok: true }
}
