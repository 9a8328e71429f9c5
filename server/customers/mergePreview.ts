// What a merge would make of two customers.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import { countIn } from './merge.queries'
import { customerById, customersById, type CustomerRow } from './queries'
import { countsOf } from './matching.queries'
import { owedBy } from './owed.queries'
import { moved } from '../subjects'

type Side = Answer<'mergePreview'>['kept']
export async function sides(ctx: Ctx, ids: string[]): Promise<Map<string, Side>> {
  const counts = await countsOf(ctx.tx, ids)
  const owed = await owedBy(ctx.tx, ids, ctx.today)
  return new Map(
    (await customersById(ctx.tx, ids)).map((c) => {
      const n = counts.find((x) => x.id === c.id)
      return [
        c.id,
        {
          id: c.id,
          name: c.name,
          phone: c.phone,
          email: c.email,
          place: [c.line1, c.town].filter(Boolean).join(', '),
          sites: n?.sites ?? 0,
          work: n?.work ?? 0,
          owed: toMoney(owed.find((o) => o.customerId === c.id)?.owed ?? 0, ctx.company.currency),
        },
      ]
    }),
  )
}
export const FIELDS = {
  name: 'Name',
  phone: 'Telephone',
  phone2: 'Second telephone',
  email: 'Mail address',
  email2: 'Second mail address',
  line1: 'Billing address',
  town: 'Town',
  postcode: 'Postcode',
  officeNote: 'Office only',
  printedNote: 'Printed note',
  stopWork: 'Stop work',
  certificate: 'Tax certificate',
} as const
export type Field = keyof typeof FIELDS
export async function both(
  ctx: Ctx,
  keptId: string,
  otherId: string,
  lock: boolean,
): Promise<[CustomerRow, CustomerRow]> {
  if (keptId === otherId) throw invalid('otherId', 'A customer cannot be merged with itself.')
  // Always in the same order, so that two people who merge the same pair do not wait for each other for ever.
  const rows = new Map<string, CustomerRow | null>()
  for (const id of [keptId, otherId].sort()) rows.set(id, await customerById(ctx.tx, id, lock))
  const [kept, other] = [rows.get(keptId), rows.get(otherId)]
  if (!kept || !other || kept.erasedAt || other.erasedAt) throw notFound('customer')
  if (kept.mergedInto || other.mergedInto)
    throw conflict('merged_already', 'One of them has been merged already.')
  return [kept, other]
}
export async function mergePreview(
  ctx: Ctx,
  id: string,
  otherId: string,
): Promise<Answer<'mergePreview'>> {
  const [kept, other] = await both(ctx, id, otherId, false)
  const all = await sides(ctx, [id, otherId])
  const moves: Answer<'mergePreview'>['moves'] = []
  for (const [table, named] of moved) {
    const count = await countIn(ctx.tx, table, otherId)
    if (count) moves.push({ what: count === 1 ? named.one : named.several, count })
  }
  return {
    kept: all.get(id)!,
    merged: all.get(otherId)!,
    moves,
    fields: (Object.keys(FIELDS) as Field[])
      .filter((f) => kept[f] !== other[f] && other[f] !== '')
      .map((f) => ({ name: f, kept: kept[f], merged: other[f] })),
  }
}
