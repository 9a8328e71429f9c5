// The rules that prices follow, and an entry as the core prices it.
import { invalid } from '../../core/errors/LedgerError'
import {
  explainPrice,
  type PricedEntry,
  type PriceWhy,
  type PricingRules,
} from '../../core/pricebook/explainPrice'
import type { PriceRounding } from '../../core/pricebook/roundedUp'
import { categoryTree } from '../../core/pricebook/inCategory'
import { factorAt, type TimeFactor } from '../../core/pricebook/timeFactor'
import { minorToDecimal } from '../../core/money/formatMinor'
import { localDate, localTime, plusDays, weekday } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { holidaysBetween } from '../dispatch/queries'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { taxClassNames } from '../settings/queries'
import { changeBook } from './changes'
import {
  batchById,
  categories,
  labourRates,
  lockBook,
  markupRules,
  pricingOf,
  putMarkupRules,
  putPricing,
  setRulesBefore,
  suppliers,
  units,
  type EntryRow,
} from './queries'

const roundingOf = (r: { kind: string; ending?: number }): PriceRounding =>
  r.kind === 'ending'
    ? { kind: 'ending', ending: r.ending ?? 0 }
    : r.kind === 'whole'
      ? { kind: 'whole' }
      : { kind: 'none' }
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
export async function pricing(ctx: Ctx): Promise<Answer<'pricing'>> {
  const p = await pricingOf(ctx.tx)
  const names = await categories(ctx.tx)
  return {
    markups: (await markupRules(ctx.tx)).map(({ scope, name, tiers }) => ({
      scope,
      name,
      tiers: tiers.map((t) => ({
        fromCost: String(Number(t.fromCost)),
        multiplier: String(Number(t.multiplier)),
      })),
    })),
    sundriesRate: p.sundriesRate,
    minimum: p.minimum,
    rounding: p.rounding.kind,
    ending: p.rounding.ending ?? 0,
    year: p.year && signedIn(ctx).seesCost ? (p.year as Answer<'pricing'>['year']) : null,
    times: (p.times ?? []).map((t) => ({ ...t, days: [...t.days] })),
    units: await units(ctx.tx),
    categories: categoryTree(names.map((c) => c.name)).map((c) => c.path),
    suppliers: await suppliers(ctx.tx),
    labour: await labourRates(ctx.tx),
    taxClasses: await taxClassNames(ctx.tx),
  }
}
/** New rules, and in the same act the prices that follow them: an entry's price never says something else than its reasons. */
export async function keepPricing(ctx: Ctx, body: Body<'keepPricing'>): Promise<Answer<'pricing'>> {
  await lockBook(ctx.tx)
  // Asked again: it was done.
  if (await batchById(ctx.tx, body.id)) return pricing(ctx)
  const seen = new Set<string>()
  for (const [i, m] of body.markups.entries()) {
    const key = `${m.scope} ${m.scope === 'all' ? '' : m.name}`
    if (m.scope !== 'all' && !m.name)
      throw invalid(`markups[${i}].name`, `Say which ${m.scope} it is for.`)
    if (seen.has(key)) throw invalid(`markups[${i}].name`, 'There is a markup for this already.')
    if (new Set(m.tiers.map((t) => Number(t.fromCost))).size !== m.tiers.length)
      throw invalid(`markups[${i}].tiers`, 'Two steps begin at the same cost.')
    seen.add(key)
  }
  for (const [i, t] of body.times.entries())
    if (t.from === t.to) throw invalid(`times[${i}].to`, 'It ends when it begins.')
  const [before, markups] = [await pricingOf(ctx.tx, true), await markupRules(ctx.tx)]
  await putMarkupRules(
    ctx.tx,
    body.markups.map((m) => ({
      id: ctx.id(),
      scope: m.scope,
      name: m.scope === 'all' ? '' : m.name,
      tiers: m.tiers,
    })),
  )
  await putPricing(ctx.tx, {
    sundriesRate: body.sundriesRate,
    minimum: body.minimum,
    rounding: {
      kind: body.rounding,
      ...(body.rounding === 'ending' ? { ending: body.ending } : {}),
    },
    year: body.year ?? before.year,
    times: body.times,
  })
  await record(ctx, {
    subject: 'settings',
    id: ctx.id(),
    text: 'Rules of prices changed',
    data: { from: before },
  })
  await changeBook(ctx, {
    id: body.id,
    title: 'Rules of prices changed',
    holdsFrom: ctx.today,
    changes: new Map(),
    even: true,
  })
  await setRulesBefore(ctx.tx, body.id, { pricing: before, markups })
  return pricing(ctx)
}
