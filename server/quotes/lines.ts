// The lines of a quote, as they would be asked for again.
import { Decimal } from '../../core/money/decimal'
import type { PricedLine, WantedLine } from '../pricebook/priceLines'

/** A line as it would be asked for again. */
export const asWanted = (line: PricedLine): WantedLine => ({
  id: line.id,
  entryId: line.entryId,
  kind: line.kind,
  name: line.name,
  quantity: new Decimal(line.quantity).toString(),
  unitPrice: new Decimal(line.unitPrice).toString(),
  ...boughtOf(line),
})
/** What was bought for a line, or somebody said that it costs, stays with it when the line is changed. */
export function boughtOf(
  line: PricedLine | undefined,
): Pick<WantedLine, 'bought' | 'unit' | 'cost'> {
  if (!line) return {}
  const { unit, unitCost, supplier, partNumber, taxClass } = line
  if (supplier) return { unit, bought: { supplier, partNumber, cost: unitCost, taxClass } }
  return line.entryId ? {} : { unit, cost: unitCost }
}
/** Whether the book, or the customer's own prices, had priced a line: it is priced anew then, not kept as if typed. */
export const pricedAnew =
  (ownPrices: Readonly<Record<string, string>>) =>
  ({ entryId, bookPrice, unitPrice }: PricedLine): boolean =>
    entryId !== null &&
    [bookPrice, ownPrices[entryId]].some(
      (price) => price != null && new Decimal(price).eq(unitPrice),
    )
