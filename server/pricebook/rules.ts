// The rules that prices follow, and an entry as the core prices it.
import {
  explainPrice,
  type PricedEntry,
  type PriceWhy,
  type PricingRules,
} from '../../core/pricebook/explainPrice'
import type { PriceRounding } from '../../core/pricebook/roundedUp'
import { factorAt, type TimeFactor } from '../../core/pricebook/timeFactor'
import { minorToDecimal } from '../../core/money/formatMinor'
import { localDate, localTime, plusDays, weekday } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import { holidaysBetween } from '../dispatch/queries'
import { signedIn, type Ctx } from '../http/context'
import { markupRules, pricingOf } from './pricing.queries'
import type { EntryRow } from './queries'

function roundingOf(r: { kind: string; ending?: number }): PriceRounding {
  if (r.kind === 'ending') return { kind: 'ending', ending: r.ending ?? 0 }
  return { kind: r.kind === 'whole' ? 'whole' : 'none' }
}
export async function rulesOf(ctx: Ctx): Promise<PricingRules> {
  const p = await pricingOf(ctx.tx)
  return {
    markups: await markupRules(ctx.tx),
    sundriesRate: p.sundriesRate,
    minimum: p.minimum,
    rounding: roundingOf(p.rounding),
  }
}
/** The factor on labour that holds at a moment, by the company's clock. */
export async function timeFactorAt(ctx: Ctx, at: number): Promise<TimeFactor | null> {
  const times = (await pricingOf(ctx.tx)).times ?? []
  if (!times.length) return null
  const [before, date] = daysAt(ctx, at)
  return factorOf(
    ctx,
    at,
    times,
    new Set((await holidaysBetween(ctx.tx, before, date)).map((h) => h.date)),
  )
}
/** The day of a moment, and the day before it, whose nights may reach into it. */
export function daysAt(ctx: Ctx, at: number): [string, string] {
  const date = localDate(at, ctx.company.timeZone)
  return [plusDays(date, -1), date]
}
export function factorOf(
  ctx: Ctx,
  at: number,
  times: readonly TimeFactor[],
  holidays: ReadonlySet<string>,
): TimeFactor | null {
  const { timeZone } = ctx.company
  const date = localDate(at, timeZone)
  return factorAt(times, {
    weekday: weekday(date),
    time: localTime(at, timeZone),
    holiday: holidays.has(date),
    holidayBefore: holidays.has(plusDays(date, -1)),
  })
}
type Priceable = Pick<
  EntryRow,
  | 'kind'
  | 'category'
  | 'supplier'
  | 'pricing'
  | 'cost'
  | 'price'
  | 'furtherPrice'
  | 'seconds'
  | 'furtherSeconds'
  | 'sundriesRate'
>
export const asPriced = (
  e: Priceable,
  labour: PricedEntry['labour'],
  parts: PricedEntry['parts'],
): PricedEntry => ({
  kind: e.kind,
  category: e.category,
  supplier: e.supplier,
  pricing: e.pricing,
  cost: e.cost,
  price: e.price,
  furtherPrice: e.furtherPrice,
  seconds: e.seconds,
  furtherSeconds: e.furtherSeconds,
  labour,
  parts,
  sundriesRate: e.sundriesRate,
})
/** Why a price is what it is, on the wire. Whoever does not see costs sees that there is a markup, not how much. */
export function shapeWhy(ctx: Ctx, why: PriceWhy): Answer<'tryPrice'>['why'] {
  const { currency } = ctx.company
  const say = (minor: number) => minorToDecimal(minor, currency)
  const hidden = !signedIn(ctx).seesCost && why.reasons.some((r) => r.code === 'cost')
  return {
    price: say(why.priceMinor),
    reasons: hidden
      ? [{ code: 'markup', text: 'from its cost, by our markup', amount: say(why.priceMinor) }]
      : why.reasons.map((r) => ({
          code: r.code,
          text: r.text.slice(0, 300),
          amount: say(r.amountMinor),
        })),
    hour: why.hourMinor === null ? null : say(why.hourMinor),
  }
}
export const whyOf = (ctx: Ctx, entry: PricedEntry, rules: PricingRules) => ({
  why: shapeWhy(ctx, explainPrice(entry, rules, ctx.company.currency)),
  whyFurther:
    entry.kind === 'task'
      ? shapeWhy(ctx, explainPrice(entry, rules, ctx.company.currency, true))
      : null,
})
