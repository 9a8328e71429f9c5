// The whole book as a file that can be taken in again.
import { writeCsv } from '../../core/formats/csv'
import { BOOK_FIELDS, writeEntryRow } from '../../core/pricebook/bookTable'
import { signedIn, type Ctx } from '../http/context'
import { Raw } from '../http/route'
import { known } from './takeIn'

/** The whole book as a file that can be taken in again, entry for entry. */
export async function bookCsv(ctx: Ctx): Promise<Raw> {
  const { entries } = await known(ctx)
  const seesCost = signedIn(ctx).seesCost
  const fields = BOOK_FIELDS.map((f, i) => ({ f, i })).filter(({ f }) => seesCost || f !== 'cost')
  return new Raw(
    'text/csv; charset=utf-8',
    writeCsv([
      fields.map(({ f }) => f),
      ...entries.map((e) => {
        const row = writeEntryRow(e)
        return fields.map(({ i }) => row[i]!)
      }),
    ]),
    'price-book.csv',
  )
}
