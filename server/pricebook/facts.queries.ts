// SQL of what the prices of a work order follow.
import type { Supplied } from '../../core/tax/ratesOn'
import { levelsIn, type LevelRow } from '../customers/queries'
import type { Tx } from '../db/pool'
import { listsIn } from '../db/queries'
import {
  customFieldsIn,
  ratesByClass,
  taxClassesIn,
  type FieldRow,
  type TaxClassRow,
} from '../settings/queries'
import { entriesIn, type EntryRow } from './queries'
import type { PricingRow } from './pricing.queries'

/** What the prices and taxes of what is supplied then and there follow, in one question; `due` are changes of prices whose day has come. */
export async function pricingFacts(tx: Tx, supplied: Supplied, dates: [string, string]) {
  const got = await listsIn<{
    taxClasses: TaxClassRow
    levels: LevelRow
    fields: FieldRow
    pricing: { pricing: PricingRow }
    holidays: { date: string }
    due: { id: string }
    entries: EntryRow
  }>(tx, {
    taxClasses: taxClassesIn,
    levels: levelsIn,
    fields: customFieldsIn,
    pricing: { columns: 'pricing', from: 'company WHERE id = 1', values: [], order: 'id' },
    holidays: {
      columns: 'on_date AS `date`',
      from: 'holidays WHERE on_date BETWEEN ? AND ?',
      values: dates,
      order: 'on_date',
    },
    due: {
      columns: 'id',
      from: 'price_batches WHERE state = "waiting" AND holds_from <= ?',
      values: [supplied.day],
      order: 'id',
      limit: 1,
    },
    entries: entriesIn(['labour', 'charge']),
  })
  return {
    classes: ratesByClass(got.taxClasses, supplied),
    usualTax: got.taxClasses,
    levels: got.levels,
    fields: got.fields,
    times: got.pricing[0]!.pricing.times ?? [],
    holidays: new Set(got.holidays.map((h) => h.date)),
    due: got.due.length > 0,
    entries: got.entries,
  }
}
