import type { KeptRate } from './ratesOn'

type Named = Pick<KeptRate, 'name' | 'rate'>
const isSame = (a: Named, b: Named) =>
  a.name.toLowerCase() === b.name.toLowerCase() && a.rate === b.rate

/**
 * Rates with the codes by which totals add them up: one name at one rate is one tax in all classes, so that a paper has one
 * total of it; the same name at another rate is another tax, since a total has one rate.
 * @param rates of one class, as they are to be; what else is said of them is kept
 * @param others those of all other classes
 * @param fresh a code that none of those told has, from a name
 * @example codedRates([{ name: 'VAT', rate: '0.05' }], [{ code: 'vat', name: 'VAT', rate: '0.2' }], fresh)[0].code // not 'vat'
 */
export function codedRates(
  rates: readonly Omit<KeptRate, 'code'>[],
  others: readonly KeptRate[],
  fresh: (name: string, taken: readonly string[]) => string,
): KeptRate[] {
  const coded: KeptRate[] = []
  for (const { name, rate, ...said } of rates) {
    const taken = [...others, ...coded].map(({ code }) => code)
    const code =
      [...others, ...coded].find((one) => isSame(one, { name, rate }))?.code ?? fresh(name, taken)
    coded.push({ code, name, rate, ...said })
  }
  return coded
}
