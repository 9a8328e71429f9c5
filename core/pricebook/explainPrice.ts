import { Decimal } from '../money/decimal'
import { minorToDecimal } from '../money/formatMinor'
import { roundToMinor } from '../money/roundToMinor'
import type { EntryKind } from './kinds'
import { markupRuleFor, type MarkupRule } from './markupTiers'
import { tierOf } from './partPrice'
import { roundedUp, type PriceRounding } from './roundedUp'

/** Seconds. */
const HOUR = 3600

export interface PricingRules {
  markups: readonly MarkupRule[]
  /** a fraction of labour and parts: glue, tape, screws */
  sundriesRate: string
  /** no task costs less, major units */
  minimum: string
  rounding: PriceRounding
}
export interface Inside {
  name: string
  quantity: string
  price: string
  cost: string
  kind: EntryKind
  furtherPrice: string | null
}
/** What an entry is priced from. Money in major units. */
export interface PricedEntry {
  kind: EntryKind
  category: string
  supplier: string
  /** `rule`: from cost, hours and parts; `fixed`: as somebody said */
  pricing: 'rule' | 'fixed'
  cost: string
  price: string
  furtherPrice: string | null
  seconds: number
  furtherSeconds: number
  /** the rate of labour that a task is worked at */
  labour: { name: string; price: string } | null
  /** a task has parts inside, an assembly anything but an assembly */
  parts: readonly Inside[]
  /** instead of the company's */
  sundriesRate: string | null
}
export interface PriceReason {
  code:
    'labour' | 'part' | 'inside' | 'cost' | 'markup' | 'sundries' | 'rounding' | 'minimum' | 'fixed'
  text: string
  amountMinor: number
}
export interface PriceWhy {
  priceMinor: number
  reasons: PriceReason[]
  /** what an hour brings once the parts are paid for; null without hours */
  hourMinor: number | null
}

/** What a fixed price is beside the rule's, by the sign of the difference. */
const FIXED: Record<number, string> = {
  [-1]: 'less, by a fixed price',
  0: 'a fixed price, the same',
  1: 'more, by a fixed price',
}
function ruledReasons(
  entry: PricedEntry,
  rules: PricingRules,
  currency: string,
  further: boolean,
): PriceReason[] {
  if (entry.kind === 'task') return taskReasons(entry, rules, currency, further)
  if (entry.kind === 'part') return partReasons(entry, rules, currency)
  return entry.kind === 'assembly' ? insideReasons(entry, currency) : []
}
/**
 * Why an entry costs what it costs, in parts that sum to its price: hours × rate, each part, sundries, rounding, minimum; a part's cost and
 * what its tier adds; what is inside an assembly, its first task at its full price and further ones at theirs; what a price that somebody
 * fixed is more or less than the rule.
 * @param further the price as a further task of the same visit: setting up is done once
 * @example explainPrice(task, rules, 'USD').reasons.map(r => r.text) // ['2.2 h × 128.00, Labour', '2 × Relief valve', '3 % sundries', 'up to a whole']
 * Source: common practice of the trade.
 */
export function explainPrice(
  entry: PricedEntry,
  rules: PricingRules,
  currency: string,
  further = false,
): PriceWhy {
  const ruled = ruledReasons(entry, rules, currency, further)
  const sum = ruled.reduce((n, r) => n + r.amountMinor, 0)
  if (entry.pricing === 'rule' && ruled.length > 0)
    return { priceMinor: sum, reasons: ruled, hourMinor: hourOf(entry, sum, currency, further) }
  const said = roundToMinor(further ? (entry.furtherPrice ?? entry.price) : entry.price, currency)
  const reasons = ruled.length
    ? [
        ...ruled,
        {
          code: 'fixed' as const,
          text: FIXED[Math.sign(said - sum)]!,
          amountMinor: said - sum,
        },
      ]
    : [{ code: 'fixed' as const, text: 'as it was set', amountMinor: said }]
  return { priceMinor: said, reasons, hourMinor: hourOf(entry, said, currency, further) }
}
function hourOf(
  entry: PricedEntry,
  priceMinor: number,
  currency: string,
  further: boolean,
): number | null {
  const seconds = further ? entry.furtherSeconds : entry.seconds
  if (!seconds || entry.kind === 'part' || entry.kind === 'assembly') return null
  const material =
    entry.kind === 'task' ? partsMinor(entry, currency).reduce((n, p) => n + p, 0) : 0
  // Multiplied first, divided last: a quotient that does not end would lose the half of a unit.
  return roundToMinor(
    new Decimal(minorToDecimal(priceMinor - material, currency)).times(HOUR).div(seconds),
    currency,
  )
}
const partsMinor = (entry: PricedEntry, currency: string): number[] =>
  entry.parts.map((p) => roundToMinor(new Decimal(p.price).times(p.quantity), currency))
const plain = (n: string | Decimal) => new Decimal(n).toString()

/**
 * What each thing inside an assembly comes to, minor units: its first task at the full price, further ones at theirs.
 * @example insidePrices([tank, relay], 'USD') // [88300, 17300]: the second task as a further one
 * Source: common practice of the trade: setting up is done once.
 */
export function insidePrices(
  inside: readonly Pick<Inside, 'kind' | 'price' | 'furtherPrice' | 'quantity'>[],
  currency: string,
): number[] {
  const firstTask = inside.findIndex((p) => p.kind === 'task')
  return inside.map((p, i) =>
    roundToMinor(
      new Decimal(
        p.kind === 'task' && i !== firstTask ? (p.furtherPrice ?? p.price) : p.price,
      ).times(p.quantity),
      currency,
    ),
  )
}
const insideReasons = (entry: PricedEntry, currency: string): PriceReason[] =>
  insidePrices(entry.parts, currency).map((amountMinor, i) => ({
    code: 'inside',
    text: `${plain(entry.parts[i]!.quantity)} × ${entry.parts[i]!.name}`,
    amountMinor,
  }))
function partReasons(entry: PricedEntry, rules: PricingRules, currency: string): PriceReason[] {
  const rule = markupRuleFor(entry, rules.markups)
  if (!rule) return []
  const costMinor = roundToMinor(entry.cost, currency)
  const { tier, next } = tierOf(entry.cost, rule.tiers)
  const priceMinor = roundToMinor(new Decimal(entry.cost).times(tier.multiplier), currency)
  const band = next
    ? `cost ${plain(tier.fromCost)} to ${plain(next.fromCost)}`
    : `cost from ${plain(tier.fromCost)}`
  return [
    { code: 'cost', text: 'cost', amountMinor: costMinor },
    {
      code: 'markup',
      text: `× ${plain(tier.multiplier)}: ${band}${rule.scope === 'all' ? '' : `, ${rule.scope} ${rule.name}`}`,
      amountMinor: priceMinor - costMinor,
    },
  ]
}
function taskReasons(
  entry: PricedEntry,
  rules: PricingRules,
  currency: string,
  further: boolean,
): PriceReason[] {
  const seconds = further ? entry.furtherSeconds : entry.seconds
  if (!entry.labour) return []
  const hours = new Decimal(seconds).div(HOUR)
  const labour: PriceReason = {
    code: 'labour',
    text: `${hours.toDecimalPlaces(2).toString()} h × ${new Decimal(entry.labour.price).toFixed(2)}, ${entry.labour.name}`,
    amountMinor: roundToMinor(new Decimal(seconds).times(entry.labour.price).div(HOUR), currency),
  }
  const parts = partsMinor(entry, currency).map((amountMinor, i): PriceReason => ({
    code: 'part',
    text: `${plain(entry.parts[i]!.quantity)} × ${entry.parts[i]!.name}`,
    amountMinor,
  }))
  const base = [labour, ...parts].reduce((n, r) => n + r.amountMinor, 0)
  const rate = new Decimal(entry.sundriesRate ?? rules.sundriesRate)
  const sundries = roundToMinor(new Decimal(minorToDecimal(base, currency)).times(rate), currency)
  const sum = base + sundries
  const rounded = roundedUp(sum, rules.rounding, currency)
  const least = Math.max(rounded, roundToMinor(rules.minimum || '0', currency))
  return [
    labour,
    ...parts,
    ...(sundries
      ? [
          {
            code: 'sundries' as const,
            text: `${plain(rate.times(100))} % sundries`,
            amountMinor: sundries,
          },
        ]
      : []),
    ...(rounded !== sum
      ? [
          {
            code: 'rounding' as const,
            text:
              rules.rounding.kind === 'ending'
                ? `up to an ending of ${String(rules.rounding.ending).padStart(2, '0')}`
                : 'up to a whole',
            amountMinor: rounded - sum,
          },
        ]
      : []),
    ...(least !== rounded
      ? [
          {
            code: 'minimum' as const,
            text: `not less than ${plain(rules.minimum)}`,
            amountMinor: least - rounded,
          },
        ]
      : []),
  ]
}
