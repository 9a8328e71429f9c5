import { Decimal } from '../money/decimal'
import { minorToDecimal } from '../money/formatMinor'
import { roundToMinor } from '../money/roundToMinor'
import { materialCost } from './entryCost'
import { explainPrice, type PricedEntry, type PricingRules } from './explainPrice'
import { InvalidValue } from '../errors/InvalidValue'

/** What is done to prices: costs or prices by a percentage (a sign tells which way), one price for all, or as the rules say. */
export type RepriceRule =
  | { kind: 'cost_percent'; percent: string }
  | { kind: 'price_percent'; percent: string }
  | { kind: 'set'; price: string }
  | { kind: 'by_rule' }
/** What may change of an entry. Major units. */
export interface PriceSet {
  cost: string
  price: string
  furtherPrice: string | null
  pricing: 'rule' | 'fixed'
}

/**
 * What a rule itself says of an entry's prices, before the rules of prices are asked: a price moved by a percentage, or set, is fixed from
 * then on; a cost moved by a percentage leaves the price to follow, or where it is fixed as it is.
 * @throws InvalidValue when a percentage would make a price negative
 * @example wished(part, { kind: 'cost_percent', percent: '10' }, 'USD').cost // '120.945', from 109.95
 */
export function wished(now: PriceSet, rule: RepriceRule, currency: string): PriceSet {
  const by = (amount: string, percent: string) =>
    minorToDecimal(roundToMinor(factorOf(percent).times(amount), currency), currency)
  if (rule.kind === 'set') return { ...now, price: rule.price, pricing: 'fixed' }
  if (rule.kind === 'price_percent')
    return {
      ...now,
      price: by(now.price, rule.percent),
      furtherPrice: now.furtherPrice === null ? null : by(now.furtherPrice, rule.percent),
      pricing: 'fixed',
    }
  // A cost keeps its four decimals: a foot of wire costs parts of a cent.
  return rule.kind === 'cost_percent'
    ? { ...now, cost: factorOf(rule.percent).times(now.cost).toDecimalPlaces(4).toString() }
    : { ...now, pricing: 'rule' }
}
/**
 * What an entry costs and is sold for after a rule, and after the rules of prices have followed it.
 * @throws InvalidValue when a percentage would make a price negative
 * @example repriced(part, { kind: 'price_percent', percent: '4' }, rules, 'USD').price // '10.40', from 10.00
 * Source: common practice of the trade (a price list is moved by a percentage); what is fixed by it is our own rule.
 */
export const repriced = (
  entry: PricedEntry,
  rule: RepriceRule,
  rules: PricingRules,
  currency: string,
): PriceSet =>
  ruled(
    {
      ...entry,
      ...wished(
        {
          cost: entry.cost,
          price: entry.price,
          furtherPrice: entry.furtherPrice,
          pricing: entry.pricing,
        },
        rule,
        currency,
      ),
    },
    rules,
    currency,
  )
function factorOf(percent: string): Decimal {
  const factor = new Decimal(percent).div(100).plus(1)
  if (factor.isNegative()) throw new InvalidValue('Prices cannot fall by more than 100 %.')
  return factor
}
/** Cost and prices of an entry as the rules make them; a fixed price stays as it is. @example ruled(task, rules, 'USD').price */
export function ruled(entry: PricedEntry, rules: PricingRules, currency: string): PriceSet {
  const why = explainPrice(entry, rules, currency)
  // Charges, rates and what no rule reaches are as somebody set them.
  const cost = materialCost(entry)
  if (entry.pricing !== 'rule' || why.reasons.some((r) => r.code === 'fixed'))
    return { cost, price: entry.price, furtherPrice: entry.furtherPrice, pricing: 'fixed' }
  const further =
    entry.kind === 'task'
      ? minorToDecimal(explainPrice(entry, rules, currency, true).priceMinor, currency)
      : entry.furtherPrice
  return {
    cost,
    price: minorToDecimal(why.priceMinor, currency),
    furtherPrice: further,
    pricing: 'rule',
  }
}
