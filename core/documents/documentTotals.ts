import { shareAmount } from '../money/shareAmount'
import { taxTotals, type TaxMode, type TaxRate, type TaxTotal } from '../tax/taxTotals'
import { lineNet, type PricedLine } from './lineNet'
import { InvalidValue } from '../errors/InvalidValue'

export interface DocumentLine extends PricedLine {
  taxes: readonly TaxRate[]
}
export interface DocumentTotals {
  /** net of each line after its own discount, before a document discount */
  lineNets: number[]
  /** each line's net after its share of the document discount: what is taxed and posted */
  lineBases: number[]
  netMinor: number
  discountMinor: number
  taxes: TaxTotal[]
  taxMinor: number
  totalMinor: number
  payableMinor: number
}

/**
 * Totals of a quote or an invoice, in minor units.
 * A document discount is shared over the lines by their net before tax. An exempt customer's lines pay no tax.
 * `added`: total = net + tax. `included`: prices are gross, net = total − tax. `withheld`: total = net, payable = net − tax.
 * @throws InvalidValue when the discount is larger than the lines
 * @example documentTotals([{ quantity: '46', unitPrice: '55', taxes: [five] }], { mode: 'withheld', currency: 'USD' }).payableMinor // 240350
 * Source: BR-CO-10, BR-CO-13, BR-CO-15, BR-CO-16 of EN 16931-1.
 */
export function documentTotals(
  lines: readonly DocumentLine[],
  options: { mode: TaxMode; currency: string; exempt?: boolean; discountMinor?: number },
): DocumentTotals {
  const { mode, currency, exempt = false, discountMinor = 0 } = options
  const lineNets = lines.map((line) => lineNet(line, currency))
  const sum = lineNets.reduce((all, net) => all + net, 0)
  if (discountMinor < 0 || discountMinor > Math.max(sum, 0))
    throw new InvalidValue('The discount is larger than the lines.')
  const shares =
    discountMinor === 0
      ? lineNets.map(() => 0)
      : shareAmount(
          discountMinor,
          lineNets.map((net) => Math.max(net, 0)),
        )
  const lineBases = lineNets.map((net, i) => net - shares[i]!)
  const taxes = exempt
    ? []
    : taxTotals(
        lines.map((line, i) => ({ netMinor: lineBases[i]!, taxes: line.taxes })),
        mode,
        currency,
      )
  const taxMinor = taxes.reduce((all, tax) => all + tax.taxMinor, 0)
  const afterDiscount = sum - discountMinor
  const netMinor = mode === 'included' ? afterDiscount - taxMinor : afterDiscount
  const totalMinor = mode === 'added' ? afterDiscount + taxMinor : afterDiscount
  return {
    lineNets,
    lineBases,
    netMinor,
    discountMinor,
    taxes,
    taxMinor,
    totalMinor,
    payableMinor: mode === 'withheld' ? totalMinor - taxMinor : totalMinor,
  }
}
