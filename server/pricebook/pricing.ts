// The rules of prices as they are seen and kept: the prices that follow them change in the same act.
import { createHash } from 'node:crypto'
import { priceFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { categoryTree } from '../../core/pricebook/inCategory'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { taxClassNames } from '../settings/queries'
import { changeBook } from './changes'
import {
  batchById,
  markupRules,
  pricingOf,
  putMarkupRules,
  putPricing,
  setRulesBefore,
} from './pricing.queries'
import { labourRates, lockBook } from './queries'
import { categories, suppliers, units } from './names.queries'

const stampOf = (...rules: unknown[]): string =>
  createHash('sha256').update(JSON.stringify(rules)).digest('hex').slice(0, 32)
export async function pricing(ctx: Ctx): Promise<Answer<'pricing'>> {
  const p = await pricingOf(ctx.tx)
  const names = await categories(ctx.tx)
  const markups = await markupRules(ctx.tx)
  return {
    stamp: stampOf(p, markups),
    markups: markups.map(({ scope, name, tiers }) => ({
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
/** What cannot be, of rules as they are typed. */
function checkRules(body: Body<'keepPricing'>): void {
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
}
/** New rules, and in the same act the prices that follow them: an entry's price never says something else than its reasons. */
export async function keepPricing(ctx: Ctx, body: Body<'keepPricing'>): Promise<Answer<'pricing'>> {
  await lockBook(ctx.tx)
  // Asked again: it was done.
  if (await batchById(ctx.tx, body.id)) return pricing(ctx)
  const [before, markups] = [await pricingOf(ctx.tx, true), await markupRules(ctx.tx)]
  if (body.stamp && body.stamp !== stampOf(before, markups))
    throw conflict('stale', 'Someone changed the rules in the meantime.', {
      current: await pricing(ctx),
      yours: body,
    })
  checkRules(body)
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
    fact: priceFacts.rulesChanged({ was: before }),
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
