import type { TaxRate } from './taxTotals'

type Named = Pick<TaxRate, 'name' | 'rate'>
const isSame = (a: Named, b: Named) =>
  a.name.toLowerCase() === b.name.toLowerCase() && a.rate === b.rate

/**
 * Rates with the codes by which totals add them up: one name at one rate is one tax in all classes, so that a paper has one
 * total of it; the same name at another rate is another tax, since a total has one rate.
 * @param rates of one class, as they are to be
 * @param others those of all other classes
 * @param fresh a code that none of those told has, from a name
 * @example codedRates([{ name: 'VAT', rate: '0.05' }], [{ code: 'vat', name: 'VAT', rate: '0.2' }], fresh)[0].code // not 'vat'
 */
export function codedRates(
  rates: readonly Named[],
  others: readonly TaxRate[],
  fresh: (name: string, taken: readonly string[]) => string,
): TaxRate[] {
  const coded: TaxRate[] = []
  for (const { name, rate } of rates) {
    const taken = [...others, ...coded].map(({ code }) => code)
    const code = others.find((one) => isSame(one, { name, rate }))?.code ?? fresh(name, taken)
    coded.push({ code, name, rate })
  }
  return coded
}
