// The whole book as a file that can be taken in again, entry for entry.
import { writeCsv } from '../../core/formats/csv'
import { BOOK_FIELDS, writeEntryRow } from '../../core/pricebook/bookTable'
import type { Ctx } from '../http/context'
import { known } from './takeIn'

/** Costs only for whoever sees them; work that is nobody's sees all. */
export async function* bookLines(ctx: Ctx): AsyncGenerator<string> {
  const { entries } = await known(ctx)
  const seesCost = !ctx.actor || ctx.actor.seesCost
  const fields = BOOK_FIELDS.map((f, i) => ({ f, i })).filter(({ f }) => seesCost || f !== 'cost')
  yield writeCsv([fields.map(({ f }) => f)])
  for (const entry of entries) {
    const row = writeEntryRow(entry)
    yield writeCsv([fields.map(({ i }) => row[i]!)])
  }
}
