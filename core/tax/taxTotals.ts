import { Decimal } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { minorToDecimal } from '../money/formatMinor'

/** How tax stands to prices: on top of them, inside them, or deducted from what is payable. */
export const TAX_MODES = ['added', 'included', 'withheld'] as const
export type TaxMode = (typeof TAX_MODES)[number]
/** One tax: `rate` is a fraction as a decimal string, '0.05' for five per cent. */
export interface TaxRate {
  code: string
  name: string
  rate: string
}
export interface TaxedLine {
  netMinor: number
  taxes: readonly TaxRate[]
}
export interface TaxTotal extends TaxRate {
  baseMinor: number
  taxMinor: number
}

/**
 * Tax for each rate on the sum of its lines, rounded once for each rate.
 * With several rates on a line (state and county) each is computed on the same base.
 * `included` takes all the line's taxes out of the gross at once: base = gross / (1 + Σ rates), and the tax is shared
 * over the rates so that base + taxes = gross.
 * @returns one total a rate, in order of first appearance; a document without taxes gives []
 * @example taxTotals([{ netMinor: 253000, taxes: [five] }], 'added', 'USD')[0].taxMinor // 12650
 * Source: BR-CO-17 of EN 16931-1 (tax per category = base × rate, rounded to two decimals).
 */
export function taxTotals(
  lines: readonly TaxedLine[],
  mode: TaxMode,
  currency: string,
): TaxTotal[] {
  if (mode === 'included') return includedTotals(lines, currency)
  const totals = new Map<string, TaxTotal>()
  for (const line of lines) {
    for (const tax of line.taxes) {
      const total = totals.get(tax.code) ?? { ...tax, baseMinor: 0, taxMinor: 0 }
      total.baseMinor += line.netMinor
      totals.set(tax.code, total)
    }
  }
  for (const total of totals.values())
    total.taxMinor = roundToMinor(
      new Decimal(minorToDecimal(total.baseMinor, currency)).times(total.rate),
      currency,
    )
  return [...totals.values()]
}

function includedTotals(lines: readonly TaxedLine[], currency: string): TaxTotal[] {
  // Lines with the same set of rates are taken out of the gross together, so that each set is rounded once.
  const groups = new Map<string, { taxes: readonly TaxRate[]; gross: number }>()
  for (const line of lines) {
    if (line.taxes.length === 0) continue
    // One group whatever the order in which a class of tax lists its rates.
    const taxes = [...line.taxes].sort((a, b) => (a.code < b.code ? -1 : 1))
    const key = taxes.map((t) => t.code).join('+')
    const group = groups.get(key) ?? { taxes, gross: 0 }
    group.gross += line.netMinor
    groups.set(key, group)
  }
  const totals = new Map<string, TaxTotal>()
  for (const { taxes, gross } of groups.values()) {
    const sum = taxes.reduce((all, t) => all.plus(t.rate), new Decimal(0))
    const base = roundToMinor(
      new Decimal(minorToDecimal(gross, currency)).div(sum.plus(1)),
      currency,
    )
    let left = gross - base
    taxes.forEach((tax, i) => {
      const part =
        i === taxes.length - 1
          ? left
          : roundToMinor(new Decimal(minorToDecimal(base, currency)).times(tax.rate), currency)
      left -= part
      const total = totals.get(tax.code) ?? { ...tax, baseMinor: 0, taxMinor: 0 }
      total.baseMinor += base
      total.taxMinor += part
      totals.set(tax.code, total)
    })
  }
  return [...totals.values()]
}
